<?php

declare(strict_types=1);

namespace App\Network;

use App\Api\Id;
use App\Api\PackedAnswer;
use App\Ledger\Desk;
use App\Network\Reorient\ReorientHandler;
use App\Network\Request\ComponentsRequest;
use App\Network\Request\ControlRequest;
use App\Network\Request\CorrectionRequest;
use App\Network\Request\HoldRequest;
use App\Network\Request\RenameRequest;
use App\Network\Request\ReorientRequest;
use App\Network\Request\ScreenRequest;
use App\Network\Request\SettingsRequest;
use App\Network\Request\SetUseRequest;
use App\Network\Suspects\SuspectsHandler;
use App\Network\View\RelativeView;
use App\Network\View\RowView;
use App\Network\View\StationView;
use App\Network\Weighting\ComponentsHandler;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT)]
final class NetworkController
{
    public function __construct(private readonly NetworkOperations $operations, private readonly Desk $desk)
    {
    }

    #[Route('/network', methods: 'GET')]
    public function network(#[Reads] Project $project, NetworkReport $report): Response
    {
        return PackedAnswer::of(
            $report->of($project),
            ['rows' => RowView::class, 'stations' => StationView::class, 'relative' => RelativeView::class],
        );
    }

    #[Route('/network/runs/{earlier'.Id::NUMBER.'}/{later'.Id::NUMBER.'}', methods: 'GET')]
    public function compared(#[Reads] Project $project, int $earlier, int $later, RunComparison $comparison): JsonResponse
    {
        return new JsonResponse($comparison->of($project, $earlier, $later));
    }

    #[Route('/network/adjust', methods: 'POST')]
    public function adjust(#[Changes] Project $project): JsonResponse
    {
        return new JsonResponse($this->desk->start($project, AdjustHandler::kind(), 'Adjust the network'), 202);
    }

    #[Route('/network/screen', methods: 'POST')]
    public function screen(#[Changes] Project $project, #[MapRequestPayload] ScreenRequest $request): JsonResponse
    {
        return new JsonResponse(
            $this->desk->start($project, ScreenHandler::kind(), 'Screening', ['limit' => $request->limit, 'most' => $request->most]),
            202,
        );
    }

    #[Route('/network/suspects', methods: 'POST')]
    public function suspects(#[Changes] Project $project): JsonResponse
    {
        return new JsonResponse($this->desk->start($project, SuspectsHandler::kind(), 'Suspects'), 202);
    }

    #[Route('/network/reorient', methods: 'POST')]
    public function reorient(#[Changes] Project $project, #[MapRequestPayload] ReorientRequest $request): JsonResponse
    {
        $title = $request->apply ? 'Re-orient' : 'Work a re-orientation out';

        return new JsonResponse($this->desk->start($project, ReorientHandler::kind(), $title, (array) $request), 202);
    }

    #[Route('/network/components', methods: 'POST')]
    public function components(#[Changes] Project $project, #[MapRequestPayload] ComponentsRequest $request): JsonResponse
    {
        return new JsonResponse(
            $this->desk->start($project, ComponentsHandler::kind(), 'Variance components', ['by' => $request->by]),
            202,
        );
    }

    #[Route('/network/corrections', methods: 'POST')]
    public function correct(#[Changes] Project $project, #[MapRequestPayload] CorrectionRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->correct($request)));
    }

    #[Route('/network/corrections/{correction'.Id::NUMBER.'}', methods: 'DELETE')]
    public function withdraw(#[Changes] Project $project, int $correction): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->withdraw($correction)));
    }

    #[Route('/network/use', methods: 'POST')]
    public function setUse(
        #[Changes] Project $project,
        #[MapRequestPayload] SetUseRequest $request,
        StillDetermined $determined,
    ): JsonResponse {
        if ($request->aside) {
            $determined->without($project, Chosen::of($request->rows));
        }

        return new JsonResponse($this->desk->carryOut($project, $this->operations->setUse($request)));
    }

    #[Route('/network/settings', methods: 'PUT')]
    public function settings(#[Changes] Project $project, #[MapRequestPayload] SettingsRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->settings($request, $this->desk->seen())));
    }

    #[Route('/network/accept', methods: 'POST')]
    public function accept(#[Changes] Project $project): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->accept()));
    }

    #[Route('/control', methods: 'PUT')]
    public function control(#[Changes] Project $project, #[MapRequestPayload] ControlRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->control($request, $this->desk->seen())));
    }

    #[Route('/control/hold', methods: 'POST')]
    public function hold(#[Changes] Project $project, #[MapRequestPayload] HoldRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->hold($request->points)));
    }

    #[Route('/control/check', methods: 'POST')]
    public function holdOut(#[Changes] Project $project, #[MapRequestPayload] HoldRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->holdOut($request->points)));
    }

    #[Route('/points/rename', methods: 'POST')]
    public function rename(#[Changes] Project $project, #[MapRequestPayload] RenameRequest $request): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->rename($request->from, trim($request->to))));
    }
}
