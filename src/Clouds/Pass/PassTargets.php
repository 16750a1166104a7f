<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Clouds\KnownPoints;
use App\Project\Project;
use App\Survey\Point;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\ControlKnots;
use Mensura\Passes\Correction;
use Mensura\Passes\ExchangedTargets;
use Mensura\Passes\Sighting;
use Mensura\Passes\Trajectory;

/**
 * Control and check points as the scan of a drive shows them; check points take part in nothing.
 *
 * @phpstan-import-type Seen from PassSettings
 *
 * @phpstan-type Three array{float, float, float}
 */
final class PassTargets
{
    /** Of two drives, the one that stays, where there is one. */
    public const STAYS = 0;
    public const MOVES = 1;

    public function __construct(private readonly KnownPoints $points)
    {
    }

    /**
     * @param list<Seen> $seen
     *
     * @return list<Sighting>
     *
     * @throws UnusableInput naming a target that is not known, or two that are exchanged, or a time out of the drive
     */
    public function sightings(Project $project, array $seen, Trajectory $way): array
    {
        $known = $this->points->of($project);
        $sightings = [];
        foreach ($seen as $i => $s) {
            $p = $known[$s['target']] ?? throw new UnusableInput("/targets/$i/target", \sprintf(
                '%s is no control or check point with given easting, northing and height', $s['target'],
            ));
            $last = $way->times[\count($way->times) - 1];
            if ($s['time'] < $way->times[0] || $s['time'] > $last) {
                $words = '%s was not seen then: the drive lasts from %.2f to %.2f s';
                throw new UnusableInput("/targets/$i/time", \sprintf($words, $s['target'], $way->times[0], $last));
            }
            $sightings[] = new Sighting(
                $p['name'], Point::CONTROL === $p['role'], self::MOVES, $s['time'], [$s['e'], $s['n'], $s['h']],
                [$p['e'], $p['n'], $p['h']],
            );
        }
        if (null !== $two = ExchangedTargets::of($sightings)) {
            $words = 'show %s and %s exchanged: with the two names the other way round they fit';
            throw new UnusableInput('/targets', \sprintf($words, $sightings[$two[0]]->target, $sightings[$two[1]]->target));
        }

        return $sightings;
    }

    /**
     * How far each is off before and after, and what the other control says of one that is control: given minus seen.
     *
     * @param list<Sighting> $sightings
     *
     * @return list<array{target: string, role: string, time: float, before: Three, after: Three, without: ?Three}>
     */
    public static function compared(array $sightings, Correction $by, ControlKnots $control): array
    {
        $rows = [];
        foreach ($sightings as $k => $s) {
            $others = $s->isControl ? $control->without($k) : null;
            $rows[] = [
                'target' => $s->target, 'role' => $s->isControl ? Point::CONTROL : Point::CHECK, 'time' => $s->time,
                'before' => $s->before(), 'after' => $s->off($by->at($s->time)),
                'without' => null === $others ? null : $s->off($others->at($s->time)),
            ];
        }

        return $rows;
    }

    /**
     * What the others say of each control sighting: root mean squares in plan and in height, null where there is but one.
     *
     * @param list<array{without: ?Three}> $rows
     *
     * @return ?array{float, float}
     */
    public static function withoutEach(array $rows): ?array
    {
        $without = array_values(array_filter(array_column($rows, 'without')));

        return [] === $without ? null : self::planAndUp($without);
    }

    /**
     * Root mean squares of one role, in plan and in height.
     *
     * @param list<array{role: string, before: Three, after: Three}> $rows
     *
     * @return ?array{before: array{float, float}, after: array{float, float}, count: int} null where there is none
     */
    public static function rms(array $rows, string $role): ?array
    {
        $of = array_values(array_filter($rows, static fn (array $r): bool => $role === $r['role']));
        if ([] === $of) {
            return null;
        }

        return [
            'before' => self::planAndUp(array_column($of, 'before')), 'after' => self::planAndUp(array_column($of, 'after')),
            'count' => \count($of),
        ];
    }

    /**
     * @param non-empty-list<Three> $off
     *
     * @return array{float, float}
     */
    private static function planAndUp(array $off): array
    {
        $plan = $up = 0.0;
        foreach ($off as [$e, $n, $h]) {
            $plan += $e ** 2 + $n ** 2;
            $up += $h ** 2;
        }

        return [sqrt($plan / \count($off)), sqrt($up / \count($off))];
    }
}
