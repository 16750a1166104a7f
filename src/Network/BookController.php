<?php

declare(strict_types=1);

namespace App\Network;

use App\Api\Id;
use App\Ledger\Desk;
use App\Network\Book\BookReport;
use App\Network\Book\CentreTargets;
use App\Network\Book\ChangeBook;
use App\Network\Book\SetupPlacement;
use App\Network\Request\BookRequest;
use App\Network\Request\EccentricRequest;
use App\Network\Request\SetupPlacesRequest;
use App\Network\Request\TraverseRequest;
use App\Network\Traverse\TraverseBook;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Survey\CorrectionRepository;
use App\Survey\ObservationRepository;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT)]
final class BookController
{
    public function __construct(
        private readonly BookReport $report,
        private readonly ObservationRepository $observations,
        private readonly CorrectionRepository $corrections,
        private readonly Desk $desk,
    ) {
    }

    #[Route('/book', methods: 'GET')]
    public function book(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse($this->report->of($project));
    }

    #[Route('/book', methods: 'PUT')]
    public function change(#[Changes] Project $project, #[MapRequestPayload] BookRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, new ChangeBook($this->observations, $request)));
    }

    /** A set-up on its own: resection, orientation, radial points; nothing is changed. */
    #[Route('/book/places', methods: 'POST')]
    public function places(
        #[Reads] Project $project,
        #[MapRequestPayload] SetupPlacesRequest $request,
        SetupPlacement $placement,
    ): JsonResponse {
        return new JsonResponse($placement->of($project, $request));
    }

    #[Route('/book/eccentric', methods: 'POST')]
    public function centre(#[Changes] Project $project, #[MapRequestPayload] EccentricRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, new CentreTargets($this->observations, $this->corrections, $request)));
    }

    /** A traverse balanced both ways; nothing is changed. */
    #[Route('/traverse/draft', methods: 'POST')]
    public function traverse(#[Reads] Project $project, #[MapRequestPayload] TraverseRequest $request, TraverseBook $book): JsonResponse
    {
        return new JsonResponse($book->of($project, $request));
    }
}
