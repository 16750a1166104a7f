<?php

declare(strict_types=1);

namespace App\Result;

use App\Api\Id;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT)]
final class ResultController
{
    #[Route('/lineage/{slot}', requirements: ['slot' => '.+'], methods: 'GET')]
    public function lineage(#[Reads] Project $project, string $slot, Lineage $lineage): JsonResponse
    {
        return new JsonResponse($lineage->of($project, $slot));
    }

    #[Route('/recompute', methods: 'POST')]
    public function recompute(#[Changes] Project $project, Desk $desk): JsonResponse
    {
        return new JsonResponse($desk->start($project, RecomputeHandler::kind(), 'Recompute what is stale'), 202);
    }
}
