<?php

declare(strict_types=1);

namespace Mensura\Surface;

/** Pairs of segments that may meet, by a grid of cells. */
final class SegmentIndex
{
    /**
     * @param list<array{float, float, float, float}> $segments x, y of both ends
     *
     * @return iterable<array{int, int}> each pair once, lower number first
     */
    public static function pairs(array $segments): iterable
    {
        if (\count($segments) < 2) {
            return;
        }
        $length = 0.0;
        foreach ($segments as [$ax, $ay, $bx, $by]) {
            $length += abs($bx - $ax) + abs($by - $ay);
        }
        $cell = max($length / \count($segments), 1e-3);
        $cells = [];
        $seen = [];
        foreach ($segments as $i => [$ax, $ay, $bx, $by]) {
            // The cells along the segment, one row at a time.
            if ($ay > $by) {
                [$ax, $ay, $bx, $by] = [$bx, $by, $ax, $ay];
            }
            $r0 = (int) floor($ay / $cell);
            $r1 = (int) floor($by / $cell);
            for ($r = $r0; $r <= $r1; ++$r) {
                $low = max($ay, $r * $cell);
                $high = min($by, ($r + 1) * $cell);
                $x0 = $by > $ay ? $ax + ($low - $ay) / ($by - $ay) * ($bx - $ax) : $ax;
                $x1 = $by > $ay ? $ax + ($high - $ay) / ($by - $ay) * ($bx - $ax) : $bx;
                $c0 = (int) floor((min($x0, $x1) - 1e-6) / $cell);
                $c1 = (int) floor((max($x0, $x1) + 1e-6) / $cell);
                for ($c = $c0; $c <= $c1; ++$c) {
                    $key = "$r $c";
                    foreach ($cells[$key] ?? [] as $j) {
                        if (!isset($seen[$j][$i])) {
                            $seen[$j][$i] = true;
                            yield [$j, $i];
                        }
                    }
                    $cells[$key][] = $i;
                }
            }
        }
    }

    /**
     * Where two segments cross or touch.
     *
     * @param array{float, float, float, float} $s
     * @param array{float, float, float, float} $t
     *
     * @return ?array{float, float} fractions along both; null when they do not meet or are parallel
     */
    public static function meeting(array $s, array $t): ?array
    {
        [$ax, $ay, $bx, $by] = $s;
        [$cx, $cy, $dx, $dy] = $t;
        $a = Predicate::orient($cx, $cy, $dx, $dy, $ax, $ay);
        $b = Predicate::orient($cx, $cy, $dx, $dy, $bx, $by);
        $c = Predicate::orient($ax, $ay, $bx, $by, $cx, $cy);
        $d = Predicate::orient($ax, $ay, $bx, $by, $dx, $dy);
        if ($a > 0.0 && $b > 0.0 || $a < 0.0 && $b < 0.0 || $c > 0.0 && $d > 0.0 || $c < 0.0 && $d < 0.0) {
            return null;
        }
        if ($a === $b || $c === $d) {
            return null; // on one line
        }

        return [$a / ($a - $b), $c / ($c - $d)];
    }
}
