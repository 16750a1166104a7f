<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Design\DesignFiles;
use App\Export\DrawingSource;
use App\Export\DrawnContours;
use App\Export\DrawnLine;
use App\Export\DrawnTriangles;
use App\Project\Project;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;

/** Surfaces as they are drawn. */
final class SurfaceDrawing implements DrawingSource
{
    public function __construct(
        private readonly SurfaceRepository $surfaces,
        private readonly PointRepository $points,
        private readonly Results $results,
        private readonly FileStore $store,
        private readonly DesignFiles $designs,
    ) {
    }

    public function surfaces(Project $project): array
    {
        $current = $this->results->current($project);
        $names = [];
        foreach ($this->surfaces->of($project) as $surface) {
            if (isset($current[$surface->slot()])) {
                $names[$surface->id()] = $surface->name();
            }
        }

        return $names;
    }

    public function lines(Project $project, array $surfaces): array
    {
        $wanted = [];
        foreach ($surfaces as $id) {
            foreach ($this->surface($project, $id)->definition()->lines as $line) {
                $wanted += array_flip($line->points);
            }
        }
        $places = [];
        foreach ([] === $wanted ? [] : $this->points->onGrid($project) as $p) {
            if (isset($wanted[$p->name])) {
                $places[$p->name] = $p;
            }
        }
        $lines = [];
        foreach ($surfaces as $id) {
            $surface = $this->surface($project, $id);
            foreach ($surface->definition()->lines as $line) {
                $lines[] = new DrawnLine(
                    $line->role, $surface->name(), self::vertices($line, $places), $line->isClosed(),
                    [] !== $line->vertices,
                );
            }
            foreach ($surface->definition()->drawn as $drawn) {
                foreach ($this->designs->lines($project, $drawn->file, $drawn->layers, $drawn->metre(), $drawn->role) as $line) {
                    $vertices = array_map(static fn (array $v): array => [$v[0], $v[1], $v[2] ?? 0.0], $line->vertices);
                    $lines[] = new DrawnLine($line->role, $surface->name(), $vertices, $line->isClosed(), $line->isClosed());
                }
            }
        }

        return $lines;
    }

    public function contours(Project $project, array $surfaces): iterable
    {
        $current = $this->results->current($project);
        foreach ($surfaces as $id) {
            $surface = $this->surface($project, $id);
            $result = $current[$surface->slot()] ?? throw new UnusableInput('/surfaces', 'a chosen surface is not computed yet');
            $summary = SurfaceSummary::of($result);
            /** @var list<array{h: float, length: float, lines: list<list<float>>}> $levels */
            $levels = $this->store->getJson($summary->contours);
            yield new DrawnContours($surface->name(), $summary->interval, $levels, $surface->definition()->index);
        }
    }

    public function triangles(Project $project, array $surfaces): iterable
    {
        $current = $this->results->current($project);
        foreach ($surfaces as $id) {
            $surface = $this->surface($project, $id);
            $result = $current[$surface->slot()] ?? throw new UnusableInput('/surfaces', 'a chosen surface is not computed yet');
            $tin = MeshCodec::decode($this->store->get($result->output));
            yield new DrawnTriangles($surface->name(), $tin->x, $tin->y, $tin->z, $tin->triangles);
        }
    }

    /**
     * @param array<string, PointRow> $places
     *
     * @return list<array{float, float, float}>
     */
    private static function vertices(DefinedLine $line, array $places): array
    {
        $vertices = [];
        foreach ($line->points as $name) {
            $p = $places[$name]
                ?? throw new UnusableInput('/surfaces', \sprintf('line "%s" runs through %s, which has no place', $line->name, $name));
            $vertices[] = [(float) $p->e, (float) $p->n, $p->h ?? 0.0];
        }
        foreach ($line->vertices as $v) {
            $vertices[] = [(float) $v[0], (float) $v[1], 0.0];
        }

        return $vertices;
    }

    private function surface(Project $project, int $id): Surface
    {
        return $this->surfaces->in($project, $id) ?? throw new UnusableInput('/surfaces', 'there is no such surface');
    }
}
