<?php

declare(strict_types=1);

namespace App\Reference;

use App\Api\Id;
use App\Ledger\Desk;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Reference\Request\ReferenceRequest;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

/** The project's system: finding one, reading about it, seeing what a change would move, changing. */
final class ReferenceController
{
    public function __construct(
        private readonly ReferencePage $page,
        private readonly SystemFinder $systems,
        private readonly ReferenceOperations $operations,
        private readonly Desk $desk,
    ) {
    }

    /** For a project not made yet: words only. */
    #[Route('/api/systems', methods: 'GET')]
    public function anySystem(Request $request): JsonResponse
    {
        return new JsonResponse($this->systems->byWords((string) $request->query->get('q')));
    }

    #[Route(Id::PROJECT.'/reference', methods: 'GET')]
    public function show(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse($this->page->of($project));
    }

    #[Route(Id::PROJECT.'/reference/systems', methods: 'GET')]
    public function search(#[Reads] Project $project, Request $request): JsonResponse
    {
        return new JsonResponse($this->systems->find($project, $this->desk->member(), trim((string) $request->query->get('q'))));
    }

    #[Route(Id::PROJECT.'/reference/system', methods: 'GET')]
    public function detail(
        #[Reads] Project $project,
        Request $request,
        ProjectReference $references,
        SystemDescription $descriptions,
    ): JsonResponse {
        $reference = (string) $request->query->get('reference');
        $system = $references->system($project->id(), $reference)
            ?? throw new UnusableInput('/reference', 'a plane local system has no definition');

        return new JsonResponse($descriptions->of($project->id(), $reference, $system, $references->extent($project)));
    }

    #[Route(Id::PROJECT.'/reference/preview', methods: 'POST')]
    public function preview(#[Reads] Project $project, #[MapRequestPayload] ReferenceRequest $request, ChangePreview $preview): JsonResponse
    {
        return new JsonResponse($preview->of($project, $request, $this->operations->change($request)));
    }

    #[Route(Id::PROJECT.'/reference', methods: 'PUT')]
    public function state(
        #[Changes] Project $project,
        #[MapRequestPayload] ReferenceRequest $request,
        RecentSystemRepository $recent,
        PointRepository $points,
        ClockInterface $clock,
    ): JsonResponse {
        $isLong = $points->count(['project' => $project->id()]) > MoveHandler::MOST_AT_ONCE;
        $done = $isLong
            ? $this->desk->start($project, MoveHandler::kind(), 'Change to '.$request->reference, MoveHandler::to($request))
            : $this->desk->carryOut($project, $this->operations->change($request));
        if (str_starts_with($request->reference, 'EPSG:')) {
            $recent->used($this->desk->member(), mb_substr($request->reference, 0, 40), $clock->now());
        }

        return new JsonResponse($done, $isLong ? 202 : 200);
    }
}
