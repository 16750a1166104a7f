<?php

declare(strict_types=1);

namespace App\Network;

use App\Api\Id;
use App\Ledger\Desk;
use App\Ledger\LedgerEntryRepository;
use App\Network\Plan\KeepPlan;
use App\Network\Plan\NetworkPlanRepository;
use App\Network\Plan\PlanCheck;
use App\Network\Plan\PlanDesk;
use App\Network\Request\PlanRequest;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/plan')]
final class PlanController
{
    public function __construct(
        private readonly NetworkPlanRepository $plans,
        private readonly LedgerEntryRepository $entries,
        private readonly PlanDesk $planned,
        private readonly Desk $desk,
    ) {
    }

    #[Route('', methods: 'GET')]
    public function plan(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse($this->planned->view($project, $this->plans->of($project)));
    }

    /** What a plan would be worth; nothing is changed. */
    #[Route('/draft', methods: 'POST')]
    public function draft(#[Reads] Project $project, #[MapRequestPayload] PlanRequest $request): JsonResponse
    {
        return new JsonResponse($this->planned->view($project, PlanCheck::plan($project, $request)));
    }

    #[Route('', methods: 'PUT')]
    public function keep(#[Changes] Project $project, #[MapRequestPayload] PlanRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, new KeepPlan($this->plans, $this->entries, $request, $this->desk->seen())));
    }
}
