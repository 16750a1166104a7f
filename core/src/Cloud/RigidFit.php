<?php

declare(strict_types=1);

namespace Mensura\Cloud;

use Mensura\Fault\UnusableInput;
use Mensura\LinearAlgebra\Dense;

/**
 * The rigid motion that lays one cloud onto another: least squares of distances to the planes the other stands for, iterated (iterative
 * closest point, Besl and McKay 1992, IEEE PAMI 14; point to plane, Chen and Medioni 1992, Image and Vision Computing 10), with weights
 * that leave out what does not fit (biweight, Beaton and Tukey 1974), begun from several shifts in plan. Metres.
 */
final readonly class RigidFit
{
    /** Points a fit begins with, and those it ends with. */
    private const FEW = 800;
    private const MANY = 20_000;
    /** Widths of the weights, as parts of the distance within which is looked, one iteration after the other. */
    private const NARROWING = [1.0, 1.0, 1.0, 0.8, 0.8, 0.6, 0.6, 0.45, 0.45, 0.34, 0.34, 0.26, 0.26, 0.2, 0.2, 0.15, 0.12, 0.1];
    private const LAST = 40;
    /** A plane speaks for a motion within this cosine; what has to speak, points seen square on, at least and as a part of all. */
    private const SPEAKS = 0.35;
    private const LEAST = 6.0;
    private const LEAST_PART = 0.0004;
    private const LEAST_OVERLAP = 0.1;

    /**
     * @param array{float, float, float, float, float, float, float, float, float} $rotation about the centre, row by row
     * @param array{float, float, float}                                           $centre   of the cloud as it came
     * @param array{float, float, float}                                           $shift    of the centre
     * @param float                                                                $overlap  part of its points that lie on the other
     * @param float                                                                $rms      of their distances, metres
     */
    private function __construct(
        public array $rotation, public array $centre, public array $shift, public float $overlap, public float $rms,
    ) {
    }

    /**
     * @param PlaneField  $onto   the other cloud, from an origin
     * @param list<float> $x      the cloud, from the same
     * @param list<float> $y
     * @param list<float> $z
     * @param float       $within how far off it may be
     *
     * @throws UnusableInput where they do not overlap, or do not determine the motion
     */
    public static function of(PlaneField $onto, array $x, array $y, array $z, float $within): self
    {
        $n = \count($x);
        if ($n < 100) {
            throw new UnusableInput('', \sprintf('holds %d points; 100 or more can be laid onto others', $n));
        }
        $centre = [array_sum($x) / $n, array_sum($y) / $n, array_sum($z) / $n];
        $few = self::some($x, $y, $z, $centre, self::FEW);
        $narrow = min(0.5 * $within, max(0.02, 5.0 * $onto->noise));
        $best = null;
        $least = \INF;
        $half = 0.5 * $within;
        foreach ([[0, 0], [1, 0], [-1, 0], [0, 1], [0, -1], [1, 1], [1, -1], [-1, 1], [-1, -1]] as [$e, $north]) {
            $motion = [1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0, $centre[0] + $e * $half, $centre[1] + $north * $half, $centre[2]];
            foreach (self::NARROWING as $part) {
                $motion = self::moved($onto, $few, $motion, max($part * $within, $narrow))[0] ?? $motion;
            }
            $cost = self::cost($onto, $few, $motion, $narrow);
            if ($cost < $least) {
                [$best, $least] = [$motion, $cost];
            }
        }
        $many = self::some($x, $y, $z, $centre, self::MANY);
        $motion = $best ?? throw new \LogicException('There is a first one.');
        for ($k = 0; $k < self::LAST; ++$k) {
            $step = self::moved($onto, $many, $motion, $narrow);
            [$motion, $size] = $step ?? [$motion, 0.0];
            if ($size < 1e-6) {
                break;
            }
        }
        $isKnown = self::moved($onto, $many, $motion, $narrow, true)[2] ?? false;
        [, $away] = $onto->distances(...self::placed($many, $motion));
        $fits = array_filter($away, static fn (float $d): bool => abs($d) < $narrow);
        $overlap = \count($fits) / \count($away);
        if ($overlap < self::LEAST_OVERLAP) {
            $words = 'lies on the other with %.0f %% of its points only: bring them nearer to each other, or allow a greater distance';
            throw new UnusableInput('', \sprintf($words, 100.0 * $overlap));
        }
        if (!$isKnown) {
            $words = 'is not held by what both have in common: there are too few surfaces that look in different directions';
            throw new UnusableInput('', $words);
        }
        $shift = [$motion[9] - $centre[0], $motion[10] - $centre[1], $motion[11] - $centre[2]];
        $rotation = [
            $motion[0], $motion[1], $motion[2], $motion[3], $motion[4], $motion[5], $motion[6], $motion[7], $motion[8],
        ];

        $squares = array_sum(array_map(static fn (float $d): float => $d * $d, $fits));

        return new self($rotation, $centre, $shift, $overlap, sqrt($squares / \count($fits)));
    }

    /** Degrees it is turned by, about whatever axis. */
    public function turn(): float
    {
        return rad2deg(acos(max(-1.0, min(1.0, 0.5 * ($this->rotation[0] + $this->rotation[4] + $this->rotation[8] - 1.0)))));
    }

    /**
     * @param list<float>                 $x
     * @param list<float>                 $y
     * @param list<float>                 $z
     * @param array{float, float, float} $origin that the clouds were given from
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    public function apply(array $x, array $y, array $z, array $origin = [0.0, 0.0, 0.0]): array
    {
        $by = [];
        foreach ([0, 1, 2] as $k) {
            $by[$k] = $this->centre[$k] + $origin[$k];
        }
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = $this->rotation;
        foreach ($x as $k => $u) {
            [$u, $v, $w] = [$u - $by[0], $y[$k] - $by[1], $z[$k] - $by[2]];
            $x[$k] = $by[0] + $this->shift[0] + $a * $u + $b * $v + $c * $w;
            $y[$k] = $by[1] + $this->shift[1] + $d * $u + $e * $v + $f * $w;
            $z[$k] = $by[2] + $this->shift[2] + $g * $u + $h * $v + $i * $w;
        }

        return [$x, $y, $z];
    }

    /**
     * Evenly taken points, from the centre.
     *
     * @param list<float>                $x
     * @param list<float>                $y
     * @param list<float>                $z
     * @param array{float, float, float} $centre
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private static function some(array $x, array $y, array $z, array $centre, int $count): array
    {
        $some = [[], [], []];
        for ($k = 0.0, $n = \count($x), $step = max(1.0, $n / $count); $k < $n; $k += $step) {
            $i = (int) $k;
            $some[0][] = $x[$i] - $centre[0];
            $some[1][] = $y[$i] - $centre[1];
            $some[2][] = $z[$i] - $centre[2];
        }

        return $some;
    }

    /**
     * @param array{list<float>, list<float>, list<float>} $points from the centre
     * @param list<float>                                  $motion rotation row by row, and where the centre comes to
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private static function placed(array $points, array $motion): array
    {
        [$x, $y, $z] = $points;
        [$a, $b, $c, $d, $e, $f, $g, $h, $i, $east, $north, $up] = $motion;
        foreach ($x as $k => $u) {
            $v = $y[$k];
            $w = $z[$k];
            $x[$k] = $east + $a * $u + $b * $v + $c * $w;
            $y[$k] = $north + $d * $u + $e * $v + $f * $w;
            $z[$k] = $up + $g * $u + $h * $v + $i * $w;
        }

        return [$x, $y, $z];
    }

    /**
     * @param array{list<float>, list<float>, list<float>} $points
     * @param list<float>                                  $motion
     *
     * @return ?array{list<float>, float, bool} the motion after a step, how far the step went, whether all of it is known
     */
    private static function moved(PlaneField $onto, array $points, array $motion, float $width, bool $isLast = false): ?array
    {
        [$x, $y, $z] = self::placed($points, $motion);
        [$planes, $away] = $onto->distances($x, $y, $z);
        [$nx, $ny, $nz] = [$onto->nx, $onto->ny, $onto->nz];
        [$east, $north, $up] = [$motion[9], $motion[10], $motion[11]];
        $m = array_fill(0, 6, array_fill(0, 6, 0.0));
        $g = array_fill(0, 6, 0.0);
        $sum = $reach = 0.0;
        foreach ($away as $i => $d) {
            $w = $d / $width;
            $w = 1.0 - $w * $w;
            if ($w <= 0.0) {
                continue;
            }
            $w *= $w;
            $p = $planes[$i];
            [$u, $v, $t] = [$x[$i] - $east, $y[$i] - $north, $z[$i] - $up];
            [$a, $b, $c] = [$nx[$p], $ny[$p], $nz[$p]];
            $j = [$v * $c - $t * $b, $t * $a - $u * $c, $u * $b - $v * $a, $a, $b, $c];
            for ($r = 0; $r < 6; ++$r) {
                $wj = $w * $j[$r];
                $g[$r] -= $wj * $d;
                for ($s = $r; $s < 6; ++$s) {
                    $m[$r][$s] += $wj * $j[$s];
                }
            }
            $sum += $w;
            $reach += $w * ($u * $u + $v * $v + $t * $t);
        }
        if ($sum <= 0.0) {
            return null;
        }
        for ($r = 0; $r < 6; ++$r) {
            for ($s = 0; $s < $r; ++$s) {
                $m[$r][$s] = $m[$s][$r];
            }
        }
        // Turns count by how far they carry the points.
        $size = sqrt($reach / $sum);
        $known = $isLast ? Dense::inverse($m) : null;
        $isKnown = null !== $known && self::isKnown($onto, $points, $motion, $known, $size, $width);
        // What nothing speaks for stays as it is, as good as.
        for ($r = 0; $r < 6; ++$r) {
            $m[$r][$r] += 1e-3 * $sum * ($r < 3 ? $size * $size : 1.0);
        }
        $inverse = Dense::inverse($m);
        if (null === $inverse) {
            return null;
        }
        $step = [];
        foreach ($inverse as $row) {
            $step[] = $row[0] * $g[0] + $row[1] * $g[1] + $row[2] * $g[2] + $row[3] * $g[3] + $row[4] * $g[4] + $row[5] * $g[5];
        }
        $went = 0.0;
        foreach ($step as $r => $value) {
            $went += abs($value) * ($r < 3 ? $size : 1.0);
        }

        return [self::turned($motion, $step), $went, $isKnown];
    }

    /**
     * Whether enough planes speak for the motion that is known least: those that look along the way it would carry their points. The
     * slight slopes that noise gives to planes speak for nothing, however many they are.
     *
     * @param array{list<float>, list<float>, list<float>} $points
     * @param list<float>                                  $motion
     * @param list<list<float>>                            $inverse of the normal equations
     */
    private static function isKnown(PlaneField $onto, array $points, array $motion, array $inverse, float $size, float $width): bool
    {
        // The greatest of the inverse's axes, by squaring up to it; turns measured by how far they carry the points.
        $axis = [1.0, 1.0, 1.0, 1.0, 1.0, 1.0];
        for ($k = 0; $k < 30; ++$k) {
            $next = [];
            foreach ($inverse as $r => $row) {
                $sum = $size * ($row[0] * $axis[0] + $row[1] * $axis[1] + $row[2] * $axis[2]) + $row[3] * $axis[3] + $row[4] * $axis[4]
                    + $row[5] * $axis[5];
                $next[] = $sum * ($r < 3 ? $size : 1.0);
            }
            $length = sqrt(array_sum(array_map(static fn (float $v): float => $v * $v, $next)));
            [$p, $q, $r, $s, $t, $u] = $next;
            $axis = [$p / $length, $q / $length, $r / $length, $s / $length, $t / $length, $u / $length];
        }
        [$a, $b, $c] = [$axis[0] / $size, $axis[1] / $size, $axis[2] / $size];
        [$x, $y, $z] = self::placed($points, $motion);
        [$planes, $away] = $onto->distances($x, $y, $z);
        $speaks = 0.0;
        $count = 0;
        foreach ($away as $i => $d) {
            if (abs($d) >= $width) {
                continue;
            }
            ++$count;
            [$u, $v, $w] = [$x[$i] - $motion[9], $y[$i] - $motion[10], $z[$i] - $motion[11]];
            [$de, $dn, $dh] = [$b * $w - $c * $v + $axis[3], $c * $u - $a * $w + $axis[4], $a * $v - $b * $u + $axis[5]];
            $way = $de * $de + $dn * $dn + $dh * $dh;
            $p = $planes[$i];
            $along = ($onto->nx[$p] * $de + $onto->ny[$p] * $dn + $onto->nz[$p] * $dh) ** 2;
            $speaks += $along > self::SPEAKS ** 2 * $way ? $along : 0.0;
        }

        return $speaks >= max(self::LEAST, self::LEAST_PART * $count);
    }

    /**
     * @param list<float> $motion
     * @param list<float> $step   turn about each axis, radians, and shift
     *
     * @return list<float>
     */
    private static function turned(array $motion, array $step): array
    {
        [$a, $b, $c] = $step;
        $angle = sqrt($a * $a + $b * $b + $c * $c);
        // Rodrigues' formula.
        [$s, $k] = $angle < 1e-12 ? [1.0, 0.5] : [sin($angle) / $angle, (1.0 - cos($angle)) / ($angle * $angle)];
        $q = [
            1.0 - $k * ($b * $b + $c * $c), $k * $a * $b - $s * $c, $k * $a * $c + $s * $b,
            $k * $a * $b + $s * $c, 1.0 - $k * ($a * $a + $c * $c), $k * $b * $c - $s * $a,
            $k * $a * $c - $s * $b, $k * $b * $c + $s * $a, 1.0 - $k * ($a * $a + $b * $b),
        ];
        $next = [];
        for ($r = 0; $r < 3; ++$r) {
            for ($col = 0; $col < 3; ++$col) {
                $next[] = $q[3 * $r] * $motion[$col] + $q[3 * $r + 1] * $motion[3 + $col] + $q[3 * $r + 2] * $motion[6 + $col];
            }
        }

        return [...$next, $motion[9] + $step[3], $motion[10] + $step[4], $motion[11] + $step[5]];
    }

    /**
     * @param array{list<float>, list<float>, list<float>} $points
     * @param list<float>                                  $motion
     */
    private static function cost(PlaneField $onto, array $points, array $motion, float $narrow): float
    {
        [, $away] = $onto->distances(...self::placed($points, $motion));
        $sum = 0.0;
        foreach ($away as $d) {
            $sum += min($narrow * $narrow, $d * $d);
        }

        return $sum;
    }
}
