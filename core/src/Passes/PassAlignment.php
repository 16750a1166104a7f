<?php

declare(strict_types=1);

namespace Mensura\Passes;

use Mensura\Cloud\HeldPoints;
use Mensura\Cloud\PlaneField;
use Mensura\Cloud\PointBlock;
use Mensura\Fault\UnusableInput;

/** Every pass registered to control, and laid onto the reference pass as that one is then. */
final readonly class PassAlignment
{
    /** Points of the reference that are held; of more, one a cube that grows until they fit. */
    private const MOST = 3_000_000;
    private const FIRST_SIDE = 0.04;

    /**
     * @param ?\Closure(float): void $progress parts of the whole
     *
     * @throws UnusableInput
     */
    public static function of(PassSet $set, ?\Closure $progress = null): PassesResult
    {
        $toControl = [];
        foreach (array_keys($set->passes) as $p) {
            $toControl[] = ControlKnots::of($p, $set->sightings);
        }
        $reference = $set->passes[$set->reference];
        $origin = [round($reference->trajectory->e[0]), round($reference->trajectory->n[0]), round($reference->trajectory->h[0])];
        $field = self::field($reference, $toControl[$set->reference]->correction, $origin, $set->radius);
        $toReference = [];
        $count = \count($set->passes);
        foreach ($set->passes as $p => $pass) {
            if ($p === $set->reference || null === $pass->points) {
                $toReference[] = null;
                continue;
            }
            $every = $set->isEveryTime ? $pass->trajectory->everyTime(...) : $pass->trajectory->everyDistance(...);
            $stations = array_map(static fn (array $s): Station => new Station($s[0], [$s[1], $s[2], $s[3]]), $every($set->every));
            $points = new StationPoints(array_map(static fn (Station $s): float => $s->time, $stations));
            foreach (($pass->points)() as [$t, $x, $y, $z]) {
                $points->take($t, $x, $y, $z);
            }
            $part = null === $progress ? null : static fn (float $of) => $progress(($p + $of) / $count);
            $toReference[] = PassComparison::of($pass, $stations, $points, $field, $set->radius, $origin, $part);
        }

        return new PassesResult($toControl, $toReference);
    }

    /** @param array{float, float, float} $origin */
    private static function field(Pass $reference, Correction $correction, array $origin, float $radius): ?PlaneField
    {
        $held = new HeldPoints(self::MOST, self::FIRST_SIDE);
        foreach (null === $reference->points ? [] : ($reference->points)() as [$t, $x, $y, $z]) {
            foreach ($t as $i => $time) {
                [$dx, $dy, $dz] = $correction->at($time);
                $x[$i] += $dx - $origin[0];
                $y[$i] += $dy - $origin[1];
                $z[$i] += $dz - $origin[2];
            }
            $held->add(new PointBlock($x, $y, $z, array_fill(0, \count($x), 0)));
        }
        $of = $held->points();

        return 0 === $of->count() ? null : new PlaneField($of->x, $of->y, $of->z, $radius);
    }
}
