<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Survey\PointRepository;
use App\Terrain\View\LineView;
use App\Terrain\View\SurfaceView;
use App\Terrain\View\TerrainView;
use App\Terrain\View\VolumeView;

/** The Terrain stage of a project. */
final class TerrainPage
{
    public function __construct(
        private readonly SurfaceRepository $surfaces,
        private readonly PointRepository $points,
        private readonly Results $results,
    ) {
    }

    public function of(Project $project): TerrainView
    {
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $views = array_map(static fn (Surface $s): SurfaceView => self::surface(
            $s, $current[$s->slot()] ?? null, $stale[$s->slot()] ?? [], $current['volume:'.$s->id()] ?? null,
            $stale['volume:'.$s->id()] ?? [],
        ), $this->surfaces->of($project));

        return new TerrainView($views, $this->points->codes($project));
    }

    /**
     * @param list<string> $stale
     * @param list<string> $staleVolume
     */
    private static function surface(Surface $surface, ?Result $result, array $stale, ?Result $volume, array $staleVolume): SurfaceView
    {
        $d = $surface->definition();
        $s = null === $result ? null : SurfaceSummary::of($result);
        $lines = array_map(static fn (DefinedLine $l): LineView => new LineView($l->role, $l->name, $l->points, $l->vertices), $d->lines);

        return new SurfaceView(
            $surface->id(), $surface->version(), $surface->name(), $d->roles, $d->codes, $d->exclude, $lines,
            $d->maxEdge, $d->interval, null !== $s,
            $result->run ?? 0, $s->points ?? 0, $s->triangles ?? 0, $s->planArea ?? 0.0, $s->surfaceArea ?? 0.0,
            $s->hMin ?? 0.0, $s->hMax ?? 0.0,
            $s->contourCount ?? 0, $result?->output, $s?->contours, $stale, $s->warnings ?? [],
            null === $volume ? null : self::volume($volume, $staleVolume), $result?->at(), $result?->authorName,
        );
    }

    /** @param list<string> $stale */
    private static function volume(Result $result, array $stale): VolumeView
    {
        $v = $result->summary;

        return new VolumeView(
            $v['elevation'], $v['cut'], $v['fill'], $v['net'], $v['areaCut'], $v['areaFill'], $v['planArea'], $stale,
            $result->at(),
        );
    }
}
