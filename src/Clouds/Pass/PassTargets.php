<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Clouds\KnownPoints;
use App\Project\Project;
use App\Survey\Point;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\PassesResult;
use Mensura\Passes\Sighting;

/**
 * Control and check points as the scans of two drives show them; check points take part in nothing.
 *
 * @phpstan-import-type Seen from PassSettings
 *
 * @phpstan-type Three array{float, float, float}
 */
final class PassTargets
{
    /** Of the two drives, the one that stays. */
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
     * @throws UnusableInput naming a target that is not known
     */
    public function sightings(Project $project, array $seen): array
    {
        $known = $this->points->of($project);
        $sightings = [];
        foreach ($seen as $i => $s) {
            $p = $known[$s['target']] ?? throw new UnusableInput("/targets/$i/target", \sprintf(
                '%s is no control or check point with given easting, northing and height', $s['target'],
            ));
            $sightings[] = new Sighting(
                $p['name'], Point::CONTROL === $p['role'], $s['stays'] ? self::STAYS : self::MOVES, $s['time'],
                [$s['e'], $s['n'], $s['h']], [$p['e'], $p['n'], $p['h']],
            );
        }

        return $sightings;
    }

    /**
     * How far each is off before and after, and what the other control says of one that is control: given minus seen.
     *
     * @param list<Sighting> $sightings
     *
     * @return list<array{target: string, role: string, stays: bool, time: float, before: Three, after: Three, without: ?Three}>
     */
    public static function compared(array $sightings, PassesResult $result): array
    {
        $rows = [];
        foreach ($sightings as $k => $s) {
            // What stays is corrected by its control alone.
            $by = self::STAYS === $s->pass ? $result->toControl[$s->pass]->correction : $result->correction($s->pass);
            $others = $s->isControl ? $result->toControl[$s->pass]->without($k) : null;
            $rows[] = [
                'target' => $s->target, 'role' => $s->isControl ? Point::CONTROL : Point::CHECK, 'stays' => self::STAYS === $s->pass,
                'time' => $s->time, 'before' => $s->before(), 'after' => $s->off($by->at($s->time)),
                'without' => null === $others ? null : $s->off($others->at($s->time)),
            ];
        }

        return $rows;
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
        $rms = static function (string $when) use ($of): array {
            $plan = $up = 0.0;
            foreach ($of as $r) {
                $plan += $r[$when][0] ** 2 + $r[$when][1] ** 2;
                $up += $r[$when][2] ** 2;
            }

            return [sqrt($plan / \count($of)), sqrt($up / \count($of))];
        };

        return ['before' => $rms('before'), 'after' => $rms('after'), 'count' => \count($of)];
    }
}
