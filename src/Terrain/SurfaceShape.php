<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Design\CloudFiles;
use App\Design\DesignFiles;
use App\Project\Project;
use App\Survey\PointRow;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\PlanSurface;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\Thinning;
use Mensura\Surface\Tin;

/** Makes the triangles of a surface as it is defined: from points and lines, drawn ones too, or from faces of a drawing. */
final class SurfaceShape
{
    private const MOST_OF_CLOUD = 1_500_000;

    /** Points of a cloud that is read while somebody waits. */
    private const MOST_AT_HAND = 1_000_000;

    public function __construct(private readonly DesignFiles $designs, private readonly CloudFiles $clouds)
    {
    }

    /**
     * What can be refused before it is kept is refused.
     *
     * @param iterable<PointRow> $points of the project, placed
     *
     * @throws UnusableInput
     */
    public function look(Project $project, SurfaceDefinition $definition, iterable $points): void
    {
        null === $definition->design ? $this->builder($project, $definition, $points) : $this->faces($project, $definition->design);
    }

    /**
     * What is read of the project, to be computed once nobody waits for it.
     *
     * @param iterable<PointRow> $points of the project, placed
     *
     * @return \Closure(): array{Tin, list<string>} the triangles, and what was decided
     *
     * @throws UnusableInput
     */
    public function read(Project $project, SurfaceDefinition $definition, iterable $points): \Closure
    {
        if (null !== $definition->design) {
            $faces = $this->faces($project, $definition->design);

            return static function () use ($faces): array {
                [$tin, $upright] = PlanSurface::of(...$faces);

                return [$tin, $upright > 0 ? ["$upright faces stand upright and are left out"] : []];
            };
        }
        $builder = $this->builder($project, $definition, $points);

        return static function () use ($builder, $definition): array {
            $tin = $builder->build($definition->maxEdge);

            return [$tin, [...$builder->warnings, ...$builder->lineWarnings]];
        };
    }

    /**
     * How coarsely the cloud of a surface is taken so that few points are left of it.
     *
     * @return array{int, ?float} points the surface takes of it, and metres: one to a square of that side; 0 for all, null where it
     *                            is too large to be read while somebody waits
     *
     * @throws UnusableInput
     */
    public function coarser(Project $project, SurfaceDefinition $definition, int $most): array
    {
        $taken = $definition->cloud;
        $known = null === $taken ? null : $this->clouds->count($project, $taken->file);
        if (null === $taken || null !== $known && $known > self::MOST_AT_HAND) {
            return [$known ?? 0, null];
        }
        [$allX, $allY] = $this->cloud($project, $taken);
        $x = $y = [];
        foreach ($allX as $i => $e) {
            if ($definition->selection->isInside($e, $allY[$i])) {
                $x[] = $e;
                $y[] = $allY[$i];
            }
        }
        if (\count($x) <= $most || [] === $y) {
            return [\count($x), $taken->spacing ?? 0.0];
        }
        $side = sqrt((max($x) - min($x)) * (max($y) - min($y)) / $most);

        return [\count($x), max($taken->spacing ?? 0.0, 0.001, $side)];
    }

    /** @param iterable<PointRow> $points */
    private function builder(Project $project, SurfaceDefinition $definition, iterable $points): SurfaceBuilder
    {
        $lines = [];
        foreach ($definition->drawn as $drawn) {
            array_push($lines, ...$this->designs->lines($project, $drawn->file, $drawn->layers, $drawn->metre(), $drawn->role));
        }

        return $definition->builder($points, $lines, null === $definition->cloud ? null : $this->cloud($project, $definition->cloud));
    }

    /** @return array{list<float>, list<float>, list<float>} easting, northing, height */
    private function cloud(Project $project, TakenCloud $taken): array
    {
        [$x, $y, $z, $name] = $this->clouds->points($project, $taken->file, '/cloud', $taken->classes);
        if (null !== $taken->spacing) {
            $kept = Thinning::kept($x, $y, $taken->spacing);
            $of = static fn (array $values): array => array_map(static fn (int $i): float => $values[$i], $kept);
            [$x, $y, $z] = [$of($x), $of($y), $of($z)];
        }
        if (\count($x) > self::MOST_OF_CLOUD) {
            $words = '%d points of %s are too many for one surface; up to %d are taken: thin them to one in a square';
            throw new UnusableInput('/cloud/spacing', \sprintf($words, \count($x), $name, self::MOST_OF_CLOUD));
        }

        return [$x, $y, $z];
    }

    /** @return array{list<float>, list<float>, list<float>, list<int>} easting, northing, height in metres, corners of triangles */
    private function faces(Project $project, TakenDrawing $taken): array
    {
        [$x, $y, $z, $triangles] = $this->designs->taken($project, $taken->file, $taken->layers, $taken->faces, $taken->metre());

        return [$x, $y, $z, $triangles];
    }
}
