<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Design\CloudFiles;
use App\Design\DesignFiles;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Survey\PointRepository;
use App\Terrain\Section\AlignmentFiles;
use App\Terrain\Section\SectionPage;
use App\Terrain\View\CloudTakenView;
use App\Terrain\View\LineView;
use App\Terrain\View\SurfaceView;
use App\Terrain\View\TakenView;
use App\Terrain\View\TerrainView;
use App\Terrain\Volume\VolumePage;

/** The Terrain stage of a project. */
final class TerrainPage
{
    public function __construct(
        private readonly SurfaceRepository $surfaces,
        private readonly PointRepository $points,
        private readonly Results $results,
        private readonly VolumePage $volumes,
        private readonly SectionPage $sections,
        private readonly AlignmentFiles $alignments,
        private readonly DesignFiles $designs,
        private readonly CloudFiles $clouds,
    ) {
    }

    public function of(Project $project): TerrainView
    {
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $views = array_map(static fn (Surface $s): SurfaceView => self::surface(
            $s, $current[$s->slot()] ?? null, $stale[$s->slot()] ?? [],
        ), $this->surfaces->of($project));

        return new TerrainView(
            $views, $this->points->codes($project), $this->volumes->of($project), $this->volumes->materials($project),
            $this->volumes->capacity($project), $this->sections->of($project), $this->alignments->of($project),
            $this->designs->drawings($project), $this->clouds->of($project),
        );
    }

    private static function taken(TakenDrawing $t): TakenView
    {
        return new TakenView($t->file, $t->layers, $t->faces, $t->unit, $t->role);
    }

    /** @param list<string> $stale */
    private static function surface(Surface $surface, ?Result $result, array $stale): SurfaceView
    {
        $d = $surface->definition();
        $s = null === $result ? null : SurfaceSummary::of($result);
        $lines = array_map(static fn (DefinedLine $l): LineView => new LineView($l->role, $l->name, $l->points, $l->vertices), $d->lines);

        return new SurfaceView(
            $surface->id(), $surface->version(), $surface->name(),
            $d->selection->roles, $d->selection->codes, $d->selection->exclude, $lines,
            $d->maxEdge, $d->interval, $d->selection->pattern, $d->selection->areas, $d->selection->include, $d->index, $d->smooth,
            $d->mean ? 'mean' : 'refuse', null === $d->design ? null : self::taken($d->design), array_map(self::taken(...), $d->drawn),
            null === $d->cloud ? null : new CloudTakenView($d->cloud->file, $d->cloud->classes, $d->cloud->spacing),
            null !== $s,
            $result->run ?? 0, $s->points ?? 0, $s->triangles ?? 0, $s->planArea ?? 0.0, $s->surfaceArea ?? 0.0,
            $s->hMin ?? 0.0, $s->hMax ?? 0.0,
            $s->contourCount ?? 0, $result?->output, $s?->contours, $stale, $s->warnings ?? [],
            $result?->at(), $result?->authorName,
        );
    }
}
