<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Job\Jobs;
use App\Ledger\Ledger;
use App\Ledger\Results;
use App\Project\ProjectAccess;
use App\Reference\ProjectReference;
use App\Store\FileStore;
use App\Terrain\Request\SurfaceRequest;
use App\Terrain\Request\VolumeRequest;
use App\Terrain\View\LineView;
use App\Terrain\View\SurfaceView;
use App\Terrain\View\TerrainView;
use App\Terrain\View\VolumeView;
use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route('/api/projects/{id<\d+>}/terrain')]
final class TerrainController
{
    public function __construct(
        private readonly ProjectAccess $access,
        private readonly Connection $connection,
        private readonly Results $results,
        private readonly Ledger $ledger,
        private readonly FileStore $store,
        private readonly Jobs $jobs,
    ) {
    }

    #[Route('', methods: 'GET')]
    public function terrain(int $id): JsonResponse
    {
        $project = $this->access->read($id);
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $views = [];
        foreach ($this->connection->fetchAllAssociative('SELECT id, name, definition FROM surface WHERE project_id = ? ORDER BY id', [$id]) as $row) {
            $d = SurfaceDefinition::fromJson($row['definition']);
            $slot = 'surface:'.$row['id'];
            $result = $current[$slot] ?? null;
            $s = $result['summary'] ?? [];
            $v = $current['volume:'.$row['id']] ?? null;
            $views[] = new SurfaceView(
                (int) $row['id'], $row['name'], $d->roles, $d->codes, $d->exclude, array_map(static fn (array $l): LineView => new LineView($l['role'], $l['name'], $l['points'], $l['vertices']), $d->lines), $d->maxEdge, $d->interval,
                null !== $result, $result['run'] ?? 0, $s['points'] ?? 0, $s['triangles'] ?? 0, $s['planArea'] ?? 0.0, $s['surfaceArea'] ?? 0.0, $s['hMin'] ?? 0.0, $s['hMax'] ?? 0.0, $s['contourCount'] ?? 0,
                $result['output'] ?? null, $s['contours'] ?? null, $stale[$slot] ?? [], $s['warnings'] ?? [],
                null === $v ? null : self::volumeView($v, $stale['volume:'.$row['id']] ?? []),
                null === $result ? null : strtr($result['created_at'], ' ', 'T').'Z', $result['author_name'] ?? null,
            );
        }
        $codes = array_map(intval(...), $this->connection->fetchAllKeyValue('SELECT code, COUNT(*) FROM point WHERE project_id = ? AND h IS NOT NULL AND '.ProjectReference::ON_GRID.' GROUP BY code ORDER BY code', [$id]));

        return new JsonResponse(new TerrainView($views, $codes));
    }

    /**
     * @param array<string, mixed> $row
     * @param list<string>         $stale
     */
    private static function volumeView(array $row, array $stale): VolumeView
    {
        $v = $row['summary'];

        return new VolumeView($v['elevation'], $v['cut'], $v['fill'], $v['net'], $v['areaCut'], $v['areaFill'], $v['planArea'], $stale, strtr($row['created_at'], ' ', 'T').'Z');
    }

    #[Route('/surfaces', methods: 'POST')]
    public function create(int $id, #[MapRequestPayload] SurfaceRequest $request): JsonResponse
    {
        return $this->define($id, $request, null);
    }

    #[Route('/surfaces/{surface<\d+>}', methods: 'PUT')]
    public function change(int $id, int $surface, #[MapRequestPayload] SurfaceRequest $request): JsonResponse
    {
        return $this->define($id, $request, $surface);
    }

    private function define(int $id, SurfaceRequest $request, ?int $existing): JsonResponse
    {
        $project = $this->access->change($id);
        if (null !== $existing && false === $this->connection->fetchOne('SELECT 1 FROM surface WHERE id = ? AND project_id = ?', [$existing, $id])) {
            throw new NotFoundHttpException('There is no such surface.');
        }
        $definition = SurfaceDefinition::fromRequest($request);
        $definition->builder($this->connection, $id); // what cannot be built is refused before it is kept
        $operation = new DefineSurface($this->connection, trim($request->name), $definition, $existing);
        $this->ledger->carryOut($project, $this->access->user()->name(), $operation);

        return new JsonResponse(['surface' => $operation->id, 'job' => $this->jobs->start($project, $this->access->user(), SurfaceHandler::kind(), 'Compute surface '.trim($request->name), ['surface' => $operation->id])], 202);
    }

    #[Route('/surfaces/{surface<\d+>}/volume', methods: 'POST')]
    public function volume(int $id, int $surface, #[MapRequestPayload] VolumeRequest $request): JsonResponse
    {
        $project = $this->access->change($id);

        return new JsonResponse(['seq' => $this->ledger->carryOut($project, $this->access->user()->name(), new ComputeVolume($this->results, $this->store, $surface, $request->elevation))]);
    }

    #[Route('/surfaces/{surface<\d+>}/mesh', methods: 'GET')]
    public function mesh(int $id, int $surface): Response
    {
        return new Response($this->store->get($this->result($id, $surface)['output']), 200, ['Content-Type' => 'application/octet-stream']);
    }

    #[Route('/surfaces/{surface<\d+>}/contours', methods: 'GET')]
    public function contours(int $id, int $surface): JsonResponse
    {
        return new JsonResponse($this->store->getJson($this->result($id, $surface)['summary']['contours']));
    }

    /** @return array<string, mixed> */
    private function result(int $id, int $surface): array
    {
        return $this->results->current($this->access->read($id))['surface:'.$surface] ?? throw new NotFoundHttpException('This surface is not computed yet.');
    }
}
