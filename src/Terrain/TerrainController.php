<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Api\Id;
use App\Api\StoredJson;
use App\Ledger\Desk;
use App\Ledger\DoneBefore;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\PointRepository;
use App\Terrain\Request\SurfaceRequest;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/terrain')]
final class TerrainController
{
    public function __construct(
        private readonly TerrainOperations $operations,
        private readonly Desk $desk,
        private readonly SurfaceRepository $surfaces,
        private readonly PointRepository $points,
        private readonly SurfaceShape $shape,
        private readonly Results $results,
        private readonly FileStore $store,
    ) {
    }

    #[Route('', methods: 'GET')]
    public function terrain(#[Reads] Project $project, TerrainPage $page): JsonResponse
    {
        return new JsonResponse($page->of($project));
    }

    #[Route('/surfaces', methods: 'POST')]
    public function create(#[Changes] Project $project, #[MapRequestPayload] SurfaceRequest $request): JsonResponse
    {
        return $this->define($project, $request, null);
    }

    /** The surface as it would be; nothing is kept. */
    #[Route('/preview', methods: 'POST')]
    public function preview(
        #[Reads] Project $project, #[MapRequestPayload] SurfaceRequest $request, SurfacePreview $preview,
    ): JsonResponse {
        return new JsonResponse($preview->of($project, SurfaceDefinition::fromRequest($request)));
    }

    #[Route('/surfaces/{surface'.Id::NUMBER.'}', methods: 'PUT')]
    public function change(#[Changes] Project $project, int $surface, #[MapRequestPayload] SurfaceRequest $request): JsonResponse
    {
        if (null === $this->surfaces->in($project, $surface)) {
            throw new NotFoundHttpException('There is no such surface.');
        }

        return $this->define($project, $request, $surface);
    }

    #[Route('/surfaces/{surface'.Id::NUMBER.'}/mesh', methods: 'GET')]
    public function mesh(#[Reads] Project $project, int $surface): Response
    {
        $mesh = $this->store->get($this->result($project, $surface)->output);

        return new Response($mesh, 200, ['Content-Type' => 'application/octet-stream']);
    }

    #[Route('/surfaces/{surface'.Id::NUMBER.'}/contours', methods: 'GET')]
    public function contours(#[Reads] Project $project, int $surface, Request $request): Response
    {
        return StoredJson::answer($this->store, SurfaceSummary::of($this->result($project, $surface))->contours, $request);
    }

    private function define(Project $project, SurfaceRequest $request, ?int $existing): JsonResponse
    {
        $name = trim($request->name);
        $definition = SurfaceDefinition::fromRequest($request);
        $this->shape->look($project, $definition, $this->points->onGrid($project));
        $operation = $this->operations->define($name, $definition, $existing, $this->desk->seen());
        try {
            $this->desk->carryOut($project, $operation);
            $id = $operation->id();
        } catch (DoneBefore $e) {
            // Sent again because its answer was lost: the surface is there.
            $id = $existing ?? $this->surfaces->named($project, $name)?->id() ?? throw $e;
        }
        $payload = ['surface' => $id];

        return new JsonResponse($payload + $this->desk->start($project, SurfaceHandler::kind(), 'Compute surface '.$name, $payload), 202);
    }

    private function result(Project $project, int $surface): Result
    {
        return $this->results->current($project)['surface:'.$surface]
            ?? throw new NotFoundHttpException('This surface is not computed yet.');
    }
}
