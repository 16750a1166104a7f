<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;

/** Contour lines of a surface: straight across each triangle, chained from edge to edge. A vertex at a level counts as above it. */
final class Contours
{
    private const MOST_LEVELS = 20000;

    /**
     * @return list<array{
     *     h: float, length: float, lines: list<list<float>>,
     * }> levels at multiples of the interval; lines as x, y, x, y, ... closed ones repeat their first point
     *
     * @throws UnusableInput
     */
    public static function of(Tin $tin, float $interval): array
    {
        if (!($interval > 0.0)) {
            throw new UnusableInput('', 'a contour interval must be positive');
        }
        ['hMin' => $low, 'hMax' => $high] = $tin->statistics();
        $first = (int) ceil($low / $interval);
        $last = (int) floor($high / $interval);
        if ($last - $first > self::MOST_LEVELS) {
            throw new UnusableInput('', \sprintf(
                'an interval of %s m makes %d contours between %.2f and %.2f m; choose a larger one', $interval,
                $last - $first + 1, $low, $high,
            ));
        }
        $z = $tin->z;
        $t = $tin->triangles;
        /** @var array<int, list<int>> $byLevel triangles each level crosses */
        $byLevel = [];
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            $a = $z[$t[$h]];
            $b = $z[$t[$h + 1]];
            $c = $z[$t[$h + 2]];
            $min = min($a, $b, $c);
            $max = max($a, $b, $c);
            for ($k = (int) ceil($min / $interval - 1e-12); $k * $interval <= $max; ++$k) {
                if ($k * $interval > $min) {
                    $byLevel[$k][] = $h;
                }
            }
        }
        ksort($byLevel);
        $levels = [];
        foreach ($byLevel as $k => $triangles) {
            $level = round($k * $interval, 9);
            $lines = self::trace($tin, $k * $interval, $triangles);
            $length = 0.0;
            foreach ($lines as $line) {
                for ($i = 2, $n = \count($line); $i < $n; $i += 2) {
                    $length += hypot($line[$i] - $line[$i - 2], $line[$i + 1] - $line[$i - 1]);
                }
            }
            if ([] !== $lines) {
                $levels[] = ['h' => $level, 'length' => $length, 'lines' => $lines];
            }
        }

        return $levels;
    }

    /**
     * @param list<int> $triangles
     *
     * @return list<list<float>>
     */
    private static function trace(Tin $tin, float $level, array $triangles): array
    {
        $t = $tin->triangles;
        $z = $tin->z;
        $opposite = $tin->opposite;
        $open = array_fill_keys($triangles, true);
        // The contour keeps the high ground on its left: it enters a triangle where the edge rises and leaves where it falls.
        $exit = static function (int $first) use ($t, $z, $level): int {
            for ($k = 0; $k < 3; ++$k) {
                if ($z[$t[$first + $k]] >= $level && $z[$t[$first + ($k + 1) % 3]] < $level) {
                    return $first + $k;
                }
            }

            return -1;
        };
        $entry = static function (int $first) use ($t, $z, $level): int {
            for ($k = 0; $k < 3; ++$k) {
                if ($z[$t[$first + $k]] < $level && $z[$t[$first + ($k + 1) % 3]] >= $level) {
                    return $first + $k;
                }
            }

            return -1;
        };
        $point = static function (int $h) use ($tin, $t, $z, $level): array {
            $a = $t[$h];
            $b = $t[2 === $h % 3 ? $h - 2 : $h + 1];
            $f = ($level - $z[$a]) / ($z[$b] - $z[$a]);

            return [$tin->x[$a] + $f * ($tin->x[$b] - $tin->x[$a]), $tin->y[$a] + $f * ($tin->y[$b] - $tin->y[$a])];
        };
        $lines = [];
        foreach ($triangles as $seed) {
            if (!isset($open[$seed])) {
                continue;
            }
            unset($open[$seed]);
            $forward = $backward = [];
            $closed = false;
            $h = $exit($seed);
            while (true) {
                array_push($forward, ...$point($h));
                $o = $opposite[$h];
                if ($o < 0) {
                    break;
                }
                $next = $o - $o % 3;
                if ($next === $seed) {
                    $closed = true;
                    break;
                }
                unset($open[$next]);
                $h = $exit($next);
            }
            if ($closed) {
                array_push($forward, $forward[0], $forward[1]);
            } else {
                $h = $entry($seed);
                while (true) {
                    [$px, $py] = $point($h);
                    array_push($backward, $py, $px);
                    $o = $opposite[$h];
                    if ($o < 0) {
                        break;
                    }
                    $next = $o - $o % 3;
                    unset($open[$next]);
                    $h = $entry($next);
                }
            }
            $line = array_merge(array_reverse($backward), $forward);
            // Triangles that meet the level in a single vertex give points without length.
            $kept = [$line[0], $line[1]];
            for ($i = 2, $n = \count($line); $i < $n; $i += 2) {
                if (hypot($line[$i] - $kept[\count($kept) - 2], $line[$i + 1] - $kept[\count($kept) - 1]) > 1e-7) {
                    $kept[] = $line[$i];
                    $kept[] = $line[$i + 1];
                }
            }
            if (\count($kept) >= 4) {
                $lines[] = $kept;
            }
        }

        return $lines;
    }
}
