<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Reference\View\ReferenceView;
use App\Survey\PointRepository;
use Mensura\Reference\Method\Methods;

/** The Reference stage of a project. */
final class ReferencePage
{
    public function __construct(
        private readonly ProjectReference $references,
        private readonly SystemDescription $descriptions,
        private readonly GridFileList $grids,
        private readonly Localizations $localizations,
        private readonly CustomSystemRepository $systems,
        private readonly PointRepository $points,
    ) {
    }

    public function of(Project $project): ReferenceView
    {
        $system = $this->references->of($project);
        $extent = $this->references->extent($project);
        $tally = $this->points->tally($project);
        $own = array_map(static fn (CustomSystem $s): array => ['id' => $s->id(), 'name' => $s->name], $this->systems->of($project));
        usort($own, static fn (array $a, array $b): int => strcmp($a['name'], $b['name']));

        return new ReferenceView(
            null === $system ? null : $this->descriptions->of($project->id(), $project->reference(), $system, $extent), $project->heights(),
            $project->geoid(), $tally['placed'], $tally['local'], $extent?->bounds(), $tally['meanHeight'], $own,
            $this->grids->of($project, $extent), $this->localizations->listed($project), self::methods(),
            $this->references->registry()->version(),
        );
    }

    /** @return list<array{code: int, name: string, parameters: list<array{code: int, name: string, kind: string}>}> */
    private static function methods(): array
    {
        $kind = static fn (int $p): string => match (true) {
            \in_array($p, Methods::LENGTHS, true) => 'length',
            \in_array($p, Methods::SCALES, true) => 'scale',
            default => 'angle',
        };
        $methods = [];
        foreach (Methods::METHODS as $code => [$name, $parameters]) {
            $asked = array_map(
                static fn (int $p): array => ['code' => $p, 'name' => Methods::PARAMETERS[$p], 'kind' => $kind($p)],
                $parameters,
            );
            $methods[] = ['code' => $code, 'name' => $name, 'parameters' => $asked];
        }

        return $methods;
    }
}
