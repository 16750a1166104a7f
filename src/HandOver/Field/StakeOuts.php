<?php

declare(strict_types=1);

namespace App\HandOver\Field;

use App\HandOver\Package\HeldPackages;
use App\HandOver\Request\FixesRequest;
use App\HandOver\View\FixView;
use App\Project\Project;
use App\Survey\PointRepository;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;
use Mensura\StakeOut\SurfaceUnder;
use Mensura\StakeOut\ToLine;
use Mensura\StakeOut\ToPoint;

/** What the simulated controller says where the rover stands: of the package it opened, and of nothing else of the project. */
final class StakeOuts
{
    public function __construct(private readonly HeldPackages $held, private readonly PointRepository $points)
    {
    }

    /**
     * @return list<FixView>
     *
     * @throws UnusableInput
     */
    public function at(string $sha256, FixesRequest $asked): array
    {
        $places = self::places($asked);
        $drawing = $this->held->drawing($sha256);
        $mesh = $asked->surface < 0 ? null : MeshCodec::arrays($this->held->mesh($sha256, $asked->surface));
        $under = static function (array $places) use ($mesh): array {
            $plan = array_map(static fn (array $p): array => [$p[0], $p[1]], array_values($places));

            return null === $mesh ? array_fill(0, \count($plan), null) : SurfaceUnder::of($mesh[0], $mesh[1], $mesh[2], $mesh[3], $plan);
        };
        $beside = null === $mesh ? self::middle($drawing['points']) : array_sum($mesh[2]) / max(1, \count($mesh[2]));
        $true = $under($places);
        $measured = [];
        foreach ($places as $i => [$e, $n]) {
            $measured[] = SimulatedRover::measured($e, $n, $true[$i], $beside, $i);
        }
        $design = $under($measured);
        $to = '' === $asked->point ? null : self::named($drawing['points'], $asked->point);
        $line = '' === $asked->line ? null : self::line($drawing, $asked->line);
        $fixes = [];
        foreach ($measured as $i => [$e, $n, $h]) {
            $above = null === $design[$i] ? null : $h - $design[$i];
            $fixes[] = new FixView(
                $e, $n, $h, SimulatedRover::SD_PLAN, $design[$i], $above, self::point([$e, $n, $h], $to, $places[$i][2]),
                self::beside($e, $n, $h, $line),
            );
        }

        return $fixes;
    }

    /**
     * Positions on the ground of the project, without a design.
     *
     * @return list<FixView>
     *
     * @throws UnusableInput
     */
    public function alone(Project $project, FixesRequest $asked): array
    {
        $mean = $this->points->tally($project)['meanHeight'] ?? 0.0;
        $fixes = [];
        foreach (self::places($asked) as $i => [$e, $n]) {
            [$e, $n, $h] = SimulatedRover::measured($e, $n, null, $mean, $i);
            $fixes[] = new FixView($e, $n, $h, SimulatedRover::SD_PLAN, null, null, null, null);
        }

        return $fixes;
    }

    /**
     * @return list<array{float, float, float}>
     *
     * @throws UnusableInput
     */
    private static function places(FixesRequest $asked): array
    {
        $places = [];
        /** @var list<mixed> $given */
        $given = $asked->places;
        foreach ($given as $i => $place) {
            $numbers = \is_array($place) ? array_filter($place, static fn (mixed $v): bool => \is_int($v) || \is_float($v)) : [];
            if (3 !== \count($numbers) || !array_is_list($numbers)) {
                throw new UnusableInput("/places/$i", 'is easting, northing and bearing');
            }
            $places[] = [(float) $numbers[0], (float) $numbers[1], (float) $numbers[2]];
        }

        return $places;
    }

    /**
     * @param array{float, float, float}                     $at
     * @param ?array{e: float, n: float, h: ?float, ...}     $to
     *
     * @return ?array{distance: float, bearing: float, forward: float, right: float, fill: ?float}
     */
    private static function point(array $at, ?array $to, float $heading): ?array
    {
        if (null === $to) {
            return null;
        }
        $way = ToPoint::of($at, [$to['e'], $to['n'], $to['h']], deg2rad($heading));

        return [
            'distance' => $way->distance, 'bearing' => rad2deg($way->bearing), 'forward' => $way->forward, 'right' => $way->right,
            'fill' => $way->fill,
        ];
    }

    /**
     * @param ?array{list<float>, list<float>, ?list<float>, ?list<float>} $line
     *
     * @return ?array{station: float, offset: float, e: float, n: float, fill: ?float, beyond: bool}
     */
    private static function beside(float $e, float $n, float $h, ?array $line): ?array
    {
        $foot = null === $line ? null : ToLine::of($e, $n, ...$line);

        return null === $foot ? null : [
            'station' => $foot->station, 'offset' => $foot->offset, 'e' => $foot->e, 'n' => $foot->n,
            'fill' => null === $foot->height ? null : $foot->height - $h, 'beyond' => $foot->beyond,
        ];
    }

    /**
     * @param list<array{name: string, e: float, n: float, h: ?float, code: string}> $points
     *
     * @return array{name: string, e: float, n: float, h: ?float, code: string}
     */
    private static function named(array $points, string $name): array
    {
        foreach ($points as $p) {
            if ($p['name'] === $name) {
                return $p;
            }
        }

        throw new UnusableInput('/point', \sprintf('the package holds no point "%s"', $name));
    }

    /**
     * @param array{lines: list<array{layer: string, vertices: list<array{float, float, float}>}>,
     *     alignments: list<array{e: list<float>, n: list<float>, stations: list<float>, ...}>, ...} $drawing
     *
     * @return array{list<float>, list<float>, ?list<float>, ?list<float>} easting, northing, heights, stations
     */
    private static function line(array $drawing, string $which): array
    {
        [$kind, $number] = explode(' ', $which);
        if ('alignment' === $kind && isset($drawing['alignments'][(int) $number])) {
            $a = $drawing['alignments'][(int) $number];

            return [$a['e'], $a['n'], null, $a['stations']];
        }
        $vertices = $drawing['lines'][(int) $number]['vertices'] ?? [];
        if ('line' !== $kind || [] === $vertices) {
            throw new UnusableInput('/line', 'the package holds no such line');
        }

        return [array_column($vertices, 0), array_column($vertices, 1), array_column($vertices, 2), null];
    }

    /** @param list<array{name: string, e: float, n: float, h: ?float, code: string}> $points */
    private static function middle(array $points): float
    {
        $heights = array_filter(array_column($points, 'h'), is_float(...));

        return [] === $heights ? 0.0 : array_sum($heights) / \count($heights);
    }
}
