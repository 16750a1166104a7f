<?php

declare(strict_types=1);

namespace Mensura\Cloud;

use Mensura\LinearAlgebra\Dense;

/**
 * The rigid motion that brings targets as a cloud shows them to where they are known, by least squares of their distances (absolute
 * orientation without scale; Horn 1987, JOSA A 4(4), here by Gauss-Newton from the turn about the vertical). One target moves, two turn
 * about the vertical too, for scanners stand level; three that do not lie on one line tilt. Metres.
 */
final readonly class TargetFit
{
    private const MOST = 30;
    /** Metres targets have to lie off their line for the tilt about it. */
    private const OFF_LINE = 0.5;
    /** Residuals by which it is asked whether two targets are each other's: metres, and how much better they are exchanged. */
    private const FAR = 0.1;
    private const BETTER = 0.25;

    /**
     * @param list<float>                      $rotation about the centre, row by row
     * @param array{float, float, float}       $centre   of the targets as they are seen
     * @param array{float, float, float}       $shift    of the centre
     * @param list<array{float, float, float}> $off      given minus moved, by target
     * @param bool                             $isTilted whether the tilt is determined
     */
    private function __construct(
        public array $rotation, public array $centre, public array $shift, public array $off, public float $rms, public bool $isTilted,
    ) {
    }

    /**
     * @param non-empty-list<array{float, float, float}> $seen
     * @param non-empty-list<array{float, float, float}> $given
     */
    public static function of(array $seen, array $given): self
    {
        [$centre, $to] = [self::middle($seen), self::middle($given)];
        $less = static fn (array $p, array $c): array => [$p[0] - $c[0], $p[1] - $c[1], $p[2] - $c[2]];
        $p = array_map(static fn (array $v): array => $less($v, $centre), $seen);
        $q = array_map(static fn (array $v): array => $less($v, $to), $given);
        $cross = $dot = 0.0;
        foreach ($p as $i => $v) {
            $cross += $v[0] * $q[$i][1] - $v[1] * $q[$i][0];
            $dot += $v[0] * $q[$i][0] + $v[1] * $q[$i][1];
        }
        $l = hypot($cross, $dot);
        [$c, $s] = $l > 0.0 ? [$dot / $l, $cross / $l] : [1.0, 0.0];
        $m = [$c, -$s, 0.0, $s, $c, 0.0, 0.0, 0.0, 1.0];
        $isTilted = \count($p) > 2 && self::offLine($p) > self::OFF_LINE;
        for ($k = 0; $isTilted && $k < self::MOST; ++$k) {
            $m = self::turned($m, $step = self::step($m, $p, $q));
            if (abs($step[0]) + abs($step[1]) + abs($step[2]) < 1e-13) {
                break;
            }
        }
        $off = [];
        $sum = 0.0;
        foreach ($p as $i => $v) {
            $off[] = $o = $less($q[$i], self::times($m, $v));
            $sum += $o[0] ** 2 + $o[1] ** 2 + $o[2] ** 2;
        }

        return new self($m, $centre, $less($to, $centre), $off, sqrt($sum / \count($p)), $isTilted);
    }

    /**
     * Two targets that are each other's, where exchanging them fits far better.
     *
     * @param non-empty-list<array{float, float, float}> $seen
     * @param non-empty-list<array{float, float, float}> $given
     *
     * @return ?array{int, int}
     */
    public static function exchanged(array $seen, array $given): ?array
    {
        $rms = self::of($seen, $given)->rms;
        if ($rms < self::FAR || \count($seen) < 3) {
            return null;
        }
        $best = null;
        foreach (array_keys($seen) as $i) {
            for ($j = $i + 1; $j < \count($seen); ++$j) {
                $other = $given;
                [$other[$i], $other[$j]] = [$given[$j], $given[$i]];
                $now = self::of($seen, $other)->rms;
                if ($now < self::BETTER * $rms && (null === $best || $now < $best[2])) {
                    $best = [$i, $j, $now];
                }
            }
        }

        return null === $best ? null : [$best[0], $best[1]];
    }

    /** Degrees it turns by. */
    public function turn(): float
    {
        return rad2deg(acos(max(-1.0, min(1.0, 0.5 * ($this->rotation[0] + $this->rotation[4] + $this->rotation[8] - 1.0)))));
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    public function apply(array $x, array $y, array $z): array
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = $this->rotation;
        [$ce, $cn, $ch] = $this->centre;
        [$te, $tn, $th] = [$ce + $this->shift[0], $cn + $this->shift[1], $ch + $this->shift[2]];
        $out = [[], [], []];
        foreach ($x as $k => $px) {
            [$u, $v, $w] = [$px - $ce, $y[$k] - $cn, $z[$k] - $ch];
            $out[0][] = $te + $a * $u + $b * $v + $c * $w;
            $out[1][] = $tn + $d * $u + $e * $v + $f * $w;
            $out[2][] = $th + $g * $u + $h * $v + $i * $w;
        }

        return $out;
    }

    /**
     * @param list<array{float, float, float}> $points
     *
     * @return array{float, float, float}
     */
    private static function middle(array $points): array
    {
        $mean = static fn (int $k): float => array_sum(array_column($points, $k)) / \count($points);

        return [$mean(0), $mean(1), $mean(2)];
    }

    /**
     * How far the farthest lies from the line through the two that are farthest apart.
     *
     * @param list<array{float, float, float}> $p
     */
    private static function offLine(array $p): float
    {
        $best = [0.0, [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        foreach ($p as $a) {
            foreach ($p as $b) {
                $d = [$b[0] - $a[0], $b[1] - $a[1], $b[2] - $a[2]];
                $l = hypot(hypot($d[0], $d[1]), $d[2]);
                $best = $l > $best[0] ? [$l, $a, $d] : $best;
            }
        }
        [$l, $a, $d] = $best;
        $off = 0.0;
        foreach ($l > 0.0 ? $p : [] as $b) {
            $v = [$b[0] - $a[0], $b[1] - $a[1], $b[2] - $a[2]];
            $c = [$v[1] * $d[2] - $v[2] * $d[1], $v[2] * $d[0] - $v[0] * $d[2], $v[0] * $d[1] - $v[1] * $d[0]];
            $off = max($off, hypot(hypot($c[0], $c[1]), $c[2]) / $l);
        }

        return $off;
    }

    /**
     * A small turn about the axes of the ground that brings the targets nearer.
     *
     * @param list<float>                      $m
     * @param list<array{float, float, float}> $p
     * @param list<array{float, float, float}> $q
     *
     * @return array{float, float, float}
     */
    private static function step(array $m, array $p, array $q): array
    {
        $n = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        $g = [0.0, 0.0, 0.0];
        foreach ($p as $i => $v) {
            [$x, $y, $z] = self::times($m, $v);
            $o = [$q[$i][0] - $x, $q[$i][1] - $y, $q[$i][2] - $z];
            // A turn w moves it by w cross itself.
            foreach ([[0.0, $z, -$y], [-$z, 0.0, $x], [$y, -$x, 0.0]] as $axis => $row) {
                foreach ([0, 1, 2] as $j) {
                    $g[$j] += $row[$j] * $o[$axis];
                    foreach ([0, 1, 2] as $k) {
                        $n[$j][$k] += $row[$j] * $row[$k];
                    }
                }
            }
        }

        $inverse = Dense::inverse($n) ?? throw new \LogicException('Targets off one line determine a turn.');
        $times = static fn (array $row): float => $row[0] * $g[0] + $row[1] * $g[1] + $row[2] * $g[2];

        return [$times($inverse[0]), $times($inverse[1]), $times($inverse[2])];
    }

    /**
     * @param list<float>                $m
     * @param array{float, float, float} $v
     *
     * @return array{float, float, float}
     */
    private static function times(array $m, array $v): array
    {
        return [
            $m[0] * $v[0] + $m[1] * $v[1] + $m[2] * $v[2], $m[3] * $v[0] + $m[4] * $v[1] + $m[5] * $v[2],
            $m[6] * $v[0] + $m[7] * $v[1] + $m[8] * $v[2],
        ];
    }

    /**
     * By the rotation of Rodrigues 1840 about the axes of the ground.
     *
     * @param list<float> $m
     * @param list<float> $w
     *
     * @return list<float>
     */
    private static function turned(array $m, array $w): array
    {
        [$a, $b, $c] = $w;
        $t = sqrt($a * $a + $b * $b + $c * $c);
        $s = $t < 1e-8 ? 1.0 : sin($t) / $t;
        $v = $t < 1e-8 ? 0.5 : (1.0 - cos($t)) / ($t * $t);
        $r = [
            1.0 - $v * ($b * $b + $c * $c), $v * $a * $b - $s * $c, $v * $a * $c + $s * $b,
            $v * $a * $b + $s * $c, 1.0 - $v * ($a * $a + $c * $c), $v * $b * $c - $s * $a,
            $v * $a * $c - $s * $b, $v * $b * $c + $s * $a, 1.0 - $v * ($a * $a + $b * $b),
        ];
        $out = [];
        foreach ([0, 1, 2] as $row) {
            foreach ([0, 1, 2] as $k) {
                $out[] = $r[3 * $row] * $m[$k] + $r[3 * $row + 1] * $m[3 + $k] + $r[3 * $row + 2] * $m[6 + $k];
            }
        }

        return $out;
    }
}
