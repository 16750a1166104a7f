<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use Mensura\Gnss\BaselineSolution;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Stops;
use Mensura\Gnss\VertexMean;

/** The track of a rover that moved, in the project, and its stops with their means. Seconds after the first epoch; metres. */
final readonly class Tracks
{
    /** A stop by codes is no stop: they wander farther than a rover does. */
    private const LEAST_SD = 0.10;

    public function __construct(private MarkPlace $places)
    {
    }

    /** @return array{track: array<string, mixed>, stops: list<array<string, mixed>>} */
    public function of(Project $project, SolvedBaseline $solved): array
    {
        $track = $solved->solution->track;
        $first = $track[0]['time'];
        $seconds = $e = $n = $h = $sd = $solutions = $epochs = [];
        foreach ($track as $t) {
            $place = ($solved->marker)($t['position']);
            $grid = $this->places->inProject($project, $place);
            if (null === $grid) {
                continue;
            }
            $q = Horizon::of($place)->turned($t['covariance']);
            $seconds[] = round($t['time']->since($first), 2);
            [$e[], $n[], $h[]] = $grid;
            $sd[] = round(sqrt($q[0][0] + $q[1][1]), 4);
            $solutions[] = $t['solution'];
            $epochs[] = ['position' => $place, 'covariance' => $t['covariance'], 'solution' => $t['solution']];
        }
        $stops = [];
        foreach ((new Stops($seconds, $e, $n, $sd))->stops as [$from, $to]) {
            $mean = VertexMean::of(\array_slice($epochs, $from, $to - $from));
            $grid = null === $mean ? null : $this->places->inProject($project, $mean->place);
            if (null === $mean || null === $grid) {
                continue;
            }
            $q = Horizon::of($mean->place)->turned($mean->covariance);
            $plan = sqrt($q[0][0] + $q[1][1]);
            if ($plan > self::LEAST_SD || BaselineSolution::CODE === $mean->solution) {
                continue;
            }
            $stops[] = [
                'from' => $seconds[$from], 'to' => $seconds[$to - 1], 'count' => $mean->count, 'e' => $grid[0], 'n' => $grid[1],
                'h' => $grid[2],
                'sdPlan' => $plan, 'sdUp' => sqrt($q[2][2]), 'solution' => $mean->solution,
            ];
        }

        return [
            'track' => ['seconds' => $seconds, 'e' => $e, 'n' => $n, 'h' => $h, 'sd' => $sd, 'solution' => $solutions], 'stops' => $stops,
        ];
    }
}
