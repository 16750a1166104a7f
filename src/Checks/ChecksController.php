<?php

declare(strict_types=1);

namespace App\Checks;

use App\Api\Id;
use App\Checks\Request\DeviationRequest;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Results;
use App\Store\FileStore;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/checks')]
final class ChecksController
{
    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    #[Route('', methods: 'GET')]
    public function checks(#[Reads] Project $project, ChecksPage $page): JsonResponse
    {
        return new JsonResponse($page->of($project));
    }

    #[Route('/deviations', methods: 'POST')]
    public function compare(
        #[Changes] Project $project, #[MapRequestPayload] DeviationRequest $request, Desk $desk,
    ): JsonResponse {
        $number = $request->number;
        if (null !== $number && !isset($this->results->current($project)[DeviationMaker::PREFIX.$number])) {
            throw new NotFoundHttpException('There is no such comparison.');
        }
        $settings = DeviationSettings::of($request);
        $payload = ['number' => $number, 'settings' => (array) $settings];

        return new JsonResponse($desk->start($project, DeviationHandler::kind(), 'Compare '.$settings->name, $payload), 202);
    }

    /** Every point with its deviation, null beside the reference. */
    #[Route('/deviations/{number'.Id::NUMBER.'}/points', methods: 'GET')]
    public function points(#[Reads] Project $project, int $number): JsonResponse
    {
        $result = $this->results->current($project)[DeviationMaker::PREFIX.$number]
            ?? throw new NotFoundHttpException('There is no such comparison.');

        return new JsonResponse($this->store->getJson($result->output));
    }
}
