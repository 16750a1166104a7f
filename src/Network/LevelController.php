<?php

declare(strict_types=1);

namespace App\Network;

use App\Api\Id;
use App\Ledger\Desk;
use App\Network\Level\KeepRun;
use App\Network\Level\LevelDesk;
use App\Network\Level\LevelOperations;
use App\Network\Request\LevelHandRequest;
use App\Network\Request\LevelReadRequest;
use App\Network\Request\LevelRunRequest;
use App\Network\Request\LevelSettingsRequest;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Mensura\Exchange\LevelCsv\LevelCsv;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT)]
final class LevelController
{
    public function __construct(
        private readonly LevelOperations $operations,
        private readonly LevelDesk $levels,
        private readonly Desk $desk,
    ) {
    }

    #[Route('/levels', methods: 'GET')]
    public function book(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse($this->levels->view($project));
    }

    /** Running heights of a run that is being written; nothing is changed. */
    #[Route('/levels/draft', methods: 'POST')]
    public function draft(#[Reads] Project $project, #[MapRequestPayload] LevelRunRequest $request): JsonResponse
    {
        return new JsonResponse($this->levels->draft($project, $request->pattern, KeepRun::rows($request->rows)));
    }

    /** Runs of a file, as they would be kept; nothing is changed. */
    #[Route('/levels/read', methods: 'POST')]
    public function read(#[Reads] Project $project, #[MapRequestPayload] LevelReadRequest $request): JsonResponse
    {
        return new JsonResponse(LevelCsv::read($request->text));
    }

    #[Route('/levels/runs', methods: 'PUT')]
    public function keep(#[Changes] Project $project, #[MapRequestPayload] LevelRunRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->keep($request, $this->desk->seen())));
    }

    #[Route('/levels/runs/{run'.Id::NUMBER.'}', methods: 'DELETE')]
    public function remove(#[Changes] Project $project, int $run): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->remove($run)));
    }

    #[Route('/levels/settings', methods: 'PUT')]
    public function settings(#[Changes] Project $project, #[MapRequestPayload] LevelSettingsRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->settings($request, $this->desk->seen())));
    }

    #[Route('/levels/network', methods: 'POST')]
    public function hand(#[Changes] Project $project, #[MapRequestPayload] LevelHandRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->hand($request)));
    }

    #[Route('/levels/control', methods: 'POST')]
    public function control(#[Changes] Project $project): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->control()));
    }
}
