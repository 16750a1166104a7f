<?php

declare(strict_types=1);

namespace App\Network;

use App\Api\Id;
use App\Ledger\Desk;
use App\Network\Book\BookReport;
use App\Network\Book\ChangeBook;
use App\Network\Request\BookRequest;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
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
}
