<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Project\Project;
use App\Reference\FollowsReference;
use App\Reference\Step;
use App\Survey\FollowsRename;

/** Lines of surfaces run through points by name and over the sketch in project coordinates; both follow. */
final class SurfaceFollower implements FollowsReference, FollowsRename
{
    public function __construct(private readonly SurfaceRepository $surfaces)
    {
    }

    public function moved(Project $project, \Closure $place, Step $step): void
    {
        foreach ($this->surfaces->of($project) as $surface) {
            $move = static fn (array $v): array => $place('a line of surface '.$surface->name(), (float) $v[0], (float) $v[1]);
            $surface->define($surface->name(), $surface->definition()->moved(
                static fn (DefinedLine $l): DefinedLine => new DefinedLine($l->role, $l->name, $l->points, array_map($move, $l->vertices)),
                $move,
            ));
        }
    }

    public function renamed(Project $project, string $from, string $to): void
    {
        $rename = static fn (string $name): string => $name === $from ? $to : $name;
        foreach ($this->surfaces->of($project) as $surface) {
            $definition = $surface->definition()->moved(
                static fn (DefinedLine $l): DefinedLine => new DefinedLine(
                    $l->role, $l->name, self::joined(array_map($rename, $l->points)), $l->vertices,
                ),
            );
            $surface->define($surface->name(), $definition->renamed($rename));
        }
    }

    /**
     * Where two marks that are one now followed each other, a line has one vertex.
     *
     * @param list<string> $names
     *
     * @return list<string>
     */
    private static function joined(array $names): array
    {
        return array_values(array_filter(
            $names,
            static fn (string $n, int $i): bool => 0 === $i || $names[$i - 1] !== $n,
            \ARRAY_FILTER_USE_BOTH,
        ));
    }
}
