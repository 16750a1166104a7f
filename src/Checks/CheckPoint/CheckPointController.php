<?php

declare(strict_types=1);

namespace App\Checks\CheckPoint;

use App\Api\Id;
use App\Checks\Request\CheckPointsRequest;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/checks/points')]
final class CheckPointController
{
    public function __construct(private readonly Results $results, private readonly FileStore $store)
    {
    }

    #[Route('', methods: 'POST')]
    public function compare(#[Changes] Project $project, #[MapRequestPayload] CheckPointsRequest $request, Desk $desk): JsonResponse
    {
        if (null !== $request->number) {
            $this->check($project, $request->number);
        }
        $settings = CheckPointSettings::of($request);
        $payload = ['number' => $request->number, 'settings' => (array) $settings];

        return new JsonResponse($desk->start($project, CheckPointHandler::kind(), 'Check '.$settings->name, $payload), 202);
    }

    /** Every check point with its differences. */
    #[Route('/{number'.Id::NUMBER.'}', methods: 'GET')]
    public function points(#[Reads] Project $project, int $number): JsonResponse
    {
        return new JsonResponse($this->store->getJson($this->check($project, $number)->output));
    }

    private function check(Project $project, int $number): Result
    {
        return $this->results->current($project)[CheckPointMaker::PREFIX.$number]
            ?? throw new NotFoundHttpException('There is no such check.');
    }
}
