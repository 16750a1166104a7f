<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Walks the steps a project's coordinates have gone, for places that are still where they were before the first of them. */
final class Steps
{
    public function __construct(private readonly ProjectReference $references, private readonly Localizations $localizations)
    {
    }

    /**
     * @param list<Step> $steps
     * @param string     $what  for messages
     *
     * @return ?\Closure(float, float, float): array{float, float, float} easting, northing and height in metres; null for no step
     *
     * @throws UnusableInput where a step cannot be gone any more
     */
    public function way(Project $project, array $steps, string $what): ?\Closure
    {
        $ways = array_map(fn (Step $s): \Closure => $this->one($project, $s, $what), $steps);

        return [] === $ways ? null : static function (float $e, float $n, float $h) use ($ways): array {
            foreach ($ways as $way) {
                [$e, $n, $h] = $way($e, $n, $h);
            }

            return [$e, $n, $h];
        };
    }

    /** @return \Closure(float, float, float): array{float, float, float} */
    private function one(Project $project, Step $step, string $what): \Closure
    {
        if (0 !== $step->localization) {
            $l = $this->localizations->read($project, $step->localization);

            return static function (float $e, float $n, float $h) use ($l): array {
                [$x, $y, $z] = $l->toGrid($e, $n, $h);

                return [$x, $y, $z ?? $h];
            };
        }
        $movement = Movement::between(
            $this->references->finder($project->id()), $this->side($project, $step->from), $this->side($project, $step->to), null,
            $step->operation, $step->epoch,
        );

        $degrees = $step->degrees;

        return static function (float $e, float $n, float $h) use ($movement, $what, $degrees): array {
            [$x, $y, $z] = $degrees ? $movement->fromDegrees($what, $n, $e, $h) : $movement->apply($what, $e, $n, $h);

            return [$x, $y, $z ?? $h];
        };
    }

    /** @param array{reference: string, heights: string, geoid: string} $side */
    private function side(Project $project, array $side): Side
    {
        $system = $this->references->system($project->id(), $side['reference'])
            ?? throw new UnusableInput('/reference', 'a plane local system is not a coordinate reference system');

        return new Side($system, 'geoid' === $side['heights'] ? $this->references->geoid($project->id(), $side['geoid']) : null);
    }
}
