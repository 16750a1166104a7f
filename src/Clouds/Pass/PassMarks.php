<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Clouds\KnownPoints;
use App\Project\Project;
use App\Result\Result;
use Mensura\Fault\UnusableInput;

/**
 * What the scan of a pass shows around a control or check point, seen from above, and where it shows the point itself. The scan lies as the
 * pass is corrected; what is said of it is as it was scanned.
 *
 * @phpstan-import-type Seen from PassSettings
 */
final class PassMarks
{
    /** Metres around the given place. */
    private const REACH = 1.5;
    /** Points that are shown; of more, as many evenly. */
    private const MOST = 4_000;
    /** The height of a mark is that in the middle of so many nearest points, within so many metres. */
    private const NEAREST = 9;
    private const NEAR = 0.3;

    public function __construct(private readonly MadePasses $made, private readonly ScanCells $scans, private readonly KnownPoints $points)
    {
    }

    /**
     * @return array{east: list<float>, north: list<float>, up: list<float>, intensity: list<float>} from the given place, metres
     *
     * @throws UnusableInput where the target is not known
     */
    public function around(Project $project, Result $pass, string $target): array
    {
        [, $near] = $this->near($project, $pass, $target);
        $step = max(1, (int) ceil(\count($near) / self::MOST));
        $shown = array_values(array_filter($near, static fn (int $k): bool => 0 === $k % $step, \ARRAY_FILTER_USE_KEY));
        $axis = static fn (int $k): array => array_map(static fn (float $v): float => round($v, 4), array_column($shown, $k));

        return ['east' => $axis(0), 'north' => $axis(1), 'up' => $axis(2), 'intensity' => $axis(4)];
    }

    /**
     * @return Seen
     *
     * @throws UnusableInput where the target is not known, or the scan has nothing there
     */
    public function seen(Project $project, Result $pass, string $target, float $east, float $north): array
    {
        [$given, $near] = $this->near($project, $pass, $target);
        $away = array_map(static fn (array $p): float => hypot($p[0] - $east, $p[1] - $north), $near);
        asort($away);
        $nearest = \array_slice(array_keys(array_filter($away, static fn (float $d): bool => $d < self::NEAR)), 0, self::NEAREST);
        if ([] === $nearest) {
            throw new UnusableInput('/east', \sprintf('there is no point of its scan within %.1f m of that place', self::NEAR));
        }
        $heights = array_map(static fn (int $k): float => $near[$k][2], $nearest);
        sort($heights);
        $time = $near[$nearest[0]][3];
        $shift = $this->made->correction($pass)->at($time);

        return [
            'target' => $target, 'time' => round($time, 6), 'e' => round($given['e'] + $east - $shift[0], 4),
            'n' => round($given['n'] + $north - $shift[1], 4),
            'h' => round($given['h'] + $heights[\count($heights) >> 1] - $shift[2], 4),
        ];
    }

    /**
     * @return array{array{e: float, n: float, h: float}, list<array{float, float, float, float, float}>} the given place; of points near it
     *                                                                          east, north and up from there, time, intensity
     */
    private function near(Project $project, Result $pass, string $target): array
    {
        $given = $this->points->of($project)[$target] ?? throw new UnusableInput('/target', \sprintf(
            '%s is no control or check point with given easting, northing and height', $target,
        ));
        $by = $this->made->correction($pass);
        $cloud = PassSettings::fromArray($pass->settings)->cloud;
        [$t, $x, $y, $z, $intensity] = $this->scans->near($project, $cloud, $by->back([
            $given['e'] - self::REACH, $given['n'] - self::REACH, $given['e'] + self::REACH, $given['n'] + self::REACH,
        ]), '/cloud');
        [$e, $n, $h] = $by->apply($t, $x, $y, $z);
        $near = [];
        foreach ($t as $i => $time) {
            [$east, $north, $up] = [$e[$i] - $given['e'], $n[$i] - $given['n'], $h[$i] - $given['h']];
            if (hypot($east, $north) <= self::REACH && abs($up) <= self::REACH) {
                $near[] = [$east, $north, $up, $time, $intensity[$i]];
            }
        }

        return [$given, $near];
    }
}
