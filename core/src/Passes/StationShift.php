<?php

declare(strict_types=1);

namespace Mensura\Passes;

use Mensura\Cloud\PlaneField;
use Mensura\LinearAlgebra\Dense;
use Mensura\LinearAlgebra\SymmetricEigen;

/**
 * The shift that lays points onto the surface another cloud stands for: least squares of distances to its planes, iterated, with
 * weights that leave out what does not fit (point to plane, Chen and Medioni 1992; biweight, Beaton and Tukey 1974), begun from
 * several shifts in plan, the one taken that most points agree with. Metres.
 */
final class StationShift
{
    public const GEOMETRY = 'geometry';
    public const AGREEMENT = 'agreement';
    public const TOO_FAR = 'too-far';

    /** Points of each direction that the search begins with. */
    private const FEW = 120;
    private const SECTORS = 6;
    /** Widths of the weights, as parts of the radius, one iteration after the other. */
    private const NARROWING = [1.0, 1.0, 0.8, 0.6, 0.45, 0.34, 0.26, 0.2, 0.15, 0.12];
    /** A plane speaks for a direction within this cosine (about 70 degrees). */
    private const SPEAKS = 0.35;
    /** What has to speak for a direction: points seen square on, at least and as a part of all. */
    private const LEAST = 6.0;
    private const LEAST_PART = 0.003;
    /** Of what speaks for a direction, the part that has to agree. */
    private const AGREE = 0.35;

    /** The noise of the reference counts as much as that of the pass; what is left when both are small. */
    private const REFERENCE_TOO = 2.0;
    private const FLOOR = 0.0005;

    /** Half the width within which a point agrees. */
    private readonly float $narrow;

    public function __construct(private readonly PlaneField $field, private readonly float $radius)
    {
        $this->narrow = min(0.5 * $radius, max(0.03, 5.0 * $field->noise));
    }

    /**
     * @param list<float> $x at the shift that is supposed
     * @param list<float> $y
     * @param list<float> $z
     */
    public function find(array $x, array $y, array $z): StationFit
    {
        $few = $this->few($x, $y, $z);
        $best = [0.0, 0.0, 0.0];
        $least = \INF;
        $half = 0.5 * $this->radius;
        foreach ([[0, 0], [1, 0], [-1, 0], [0, 1], [0, -1], [1, 1], [1, -1], [-1, 1], [-1, -1]] as [$e, $n]) {
            $shift = [$e * $half, $n * $half, 0.0];
            foreach (self::NARROWING as $part) {
                $shift = $this->moved($few, $shift, max($part * $this->radius, $this->narrow));
            }
            $cost = $this->cost($few, $shift);
            if ($cost < $least) {
                [$least, $best] = [$cost, $shift];
            }
        }

        return $this->fit([$x, $y, $z], $best);
    }

    /**
     * From a shift that is nearly right already.
     *
     * @param array{list<float>, list<float>, list<float>} $points
     * @param array{float, float, float}                   $shift
     */
    public function fit(array $points, array $shift): StationFit
    {
        for ($k = 0; $k < 8; ++$k) {
            $next = $this->moved($points, $shift, $this->narrow);
            $moved = abs($next[0] - $shift[0]) + abs($next[1] - $shift[1]) + abs($next[2] - $shift[2]);
            $shift = $next;
            if ($moved < 1e-5) {
                break;
            }
        }
        [$planes, $away] = $this->field->distances(...$points, dx: $shift[0], dy: $shift[1], dz: $shift[2]);

        return new StationFit($shift, $this->sd($points, $planes, $away), $this->doubt($planes, $away, $shift), $this->agreeing($away));
    }

    /**
     * Some of the points, of every direction their planes look in as many: the few that speak for the direction of travel count as
     * much as the ground (normal-space sampling, Rusinkiewicz and Levoy 2001, 3-D Digital Imaging and Modeling).
     *
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private function few(array $x, array $y, array $z): array
    {
        [$planes] = $this->field->distances($x, $y, $z);
        $by = [];
        foreach ($planes as $i => $p) {
            $sector = -1;
            if ($p >= 0) {
                $azimuth = atan2($this->field->ny[$p], $this->field->nx[$p]);
                $isLevel = abs($this->field->nz[$p]) > 0.7;
                $sector = $isLevel ? self::SECTORS : (int) floor(($azimuth / \M_PI + 1.0) * self::SECTORS) % self::SECTORS;
            }
            $by[$sector][] = $i;
        }
        ksort($by);
        $few = [[], [], []];
        foreach ($by as $of) {
            for ($k = 0, $n = \count($of), $step = max(1.0, $n / self::FEW); $k < $n; $k += $step) {
                $i = $of[(int) $k];
                $few[0][] = $x[$i];
                $few[1][] = $y[$i];
                $few[2][] = $z[$i];
            }
        }

        return $few;
    }

    /**
     * Which points agree.
     *
     * @param list<float> $away
     *
     * @return list<int>
     */
    public function agreeing(array $away): array
    {
        return array_keys(array_filter($away, fn (float $d): bool => abs($d) < $this->narrow));
    }

    /**
     * @param array{list<float>, list<float>, list<float>} $points
     * @param array{float, float, float}                   $shift
     *
     * @return array{float, float, float}
     */
    private function moved(array $points, array $shift, float $width): array
    {
        [$planes, $away] = $this->field->distances(...$points, dx: $shift[0], dy: $shift[1], dz: $shift[2]);
        [$nx, $ny, $nz] = [$this->field->nx, $this->field->ny, $this->field->nz];
        $xx = $xy = $xz = $yy = $yz = $zz = $gx = $gy = $gz = 0.0;
        foreach ($away as $i => $d) {
            $u = $d / $width;
            $u = 1.0 - $u * $u;
            if ($u <= 0.0) {
                continue;
            }
            $w = $u * $u;
            $p = $planes[$i];
            [$a, $b, $c] = [$nx[$p], $ny[$p], $nz[$p]];
            $xx += $w * $a * $a;
            $xy += $w * $a * $b;
            $xz += $w * $a * $c;
            $yy += $w * $b * $b;
            $yz += $w * $b * $c;
            $zz += $w * $c * $c;
            $gx -= $w * $a * $d;
            $gy -= $w * $b * $d;
            $gz -= $w * $c * $d;
        }
        [$values, $vectors] = SymmetricEigen::ofThree([[$xx, $xy, $xz], [$xy, $yy, $yz], [$xz, $yz, $zz]]);
        // Along what nothing speaks for it stays where it is.
        $least = 1e-3 * ($xx + $yy + $zz);
        foreach ($values as $k => $value) {
            if ($value > $least) {
                [$a, $b, $c] = [$vectors[0][$k], $vectors[1][$k], $vectors[2][$k]];
                $by = max(-$width, min($width, ($a * $gx + $b * $gy + $c * $gz) / $value));
                $shift = [$shift[0] + $by * $a, $shift[1] + $by * $b, $shift[2] + $by * $c];
            }
        }

        return $shift;
    }

    /**
     * @param array{list<float>, list<float>, list<float>} $points
     * @param array{float, float, float}                   $shift
     */
    private function cost(array $points, array $shift): float
    {
        [, $away] = $this->field->distances(...$points, dx: $shift[0], dy: $shift[1], dz: $shift[2]);
        $most = $this->narrow * $this->narrow;
        $sum = 0.0;
        foreach ($away as $d) {
            $sum += min($most, $d * $d);
        }

        return $sum;
    }

    /**
     * @param list<int>                  $planes
     * @param list<float>                $away
     * @param array{float, float, float} $shift
     */
    private function doubt(array $planes, array $away, array $shift): ?string
    {
        [$nx, $ny, $nz] = [$this->field->nx, $this->field->ny, $this->field->nz];
        $m = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        $count = $agree = 0;
        foreach ($away as $i => $d) {
            if (\INF === $d) {
                continue;
            }
            ++$count;
            if (abs($d) >= $this->narrow) {
                continue;
            }
            ++$agree;
            $p = $planes[$i];
            $normal = [$nx[$p], $ny[$p], $nz[$p]];
            for ($r = 0; $r < 3; ++$r) {
                for ($c = 0; $c < 3; ++$c) {
                    $m[$r][$c] += $normal[$r] * $normal[$c];
                }
            }
        }
        [, $vectors] = SymmetricEigen::ofThree($m);
        $doubt = $agree < self::AGREE * $count ? self::AGREEMENT : null;
        for ($k = 0; $k < 3; ++$k) {
            [$all, $with] = [0.0, 0.0];
            foreach ($away as $i => $d) {
                if (\INF !== $d) {
                    $p = $planes[$i];
                    $cosine = abs($nx[$p] * $vectors[0][$k] + $ny[$p] * $vectors[1][$k] + $nz[$p] * $vectors[2][$k]);
                    if ($cosine > self::SPEAKS) {
                        $all += $cosine * $cosine;
                        $with += abs($d) < $this->narrow ? $cosine * $cosine : 0.0;
                    }
                }
            }
            $needed = max(self::LEAST, self::LEAST_PART * $count);
            if ($all < $needed) {
                return self::GEOMETRY;
            }
            if ($with < self::AGREE * $all) {
                $doubt = self::AGREEMENT;
            } elseif ($with < $needed) {
                return self::GEOMETRY;
            }
        }
        if (null === $doubt && $shift[0] ** 2 + $shift[1] ** 2 + $shift[2] ** 2 > $this->radius ** 2) {
            return self::TOO_FAR;
        }

        return $doubt;
    }

    /**
     * Standard deviations of the shift that count what lies together as one: neighbouring points share the plane they are held
     * against, and its error (sandwich by clusters: Liang and Zeger 1986, Biometrika 73).
     *
     * @param array{list<float>, list<float>, list<float>} $points
     * @param list<int>                                    $planes
     * @param list<float>                                  $away
     *
     * @return ?array{float, float, float}
     */
    private function sd(array $points, array $planes, array $away): ?array
    {
        $side = 4.0 * $this->field->radius;
        $m = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        $sums = [];
        foreach ($this->agreeing($away) as $i) {
            $u = $away[$i] / $this->narrow;
            $w = (1.0 - $u * $u) ** 2;
            $p = $planes[$i];
            $normal = [$this->field->nx[$p], $this->field->ny[$p], $this->field->nz[$p]];
            $place = floor($points[0][$i] / $side).' '.floor($points[1][$i] / $side).' '.floor($points[2][$i] / $side);
            $sums[$place] ??= [0.0, 0.0, 0.0];
            for ($r = 0; $r < 3; ++$r) {
                $sums[$place][$r] += $w * $normal[$r] * $away[$i];
                for ($c = 0; $c < 3; ++$c) {
                    $m[$r][$c] += $w * $normal[$r] * $normal[$c];
                }
            }
        }
        $inverse = Dense::inverse($m);
        $groups = \count($sums);
        if (null === $inverse || $groups < 4) {
            return null;
        }
        $squares = [0.0, 0.0, 0.0];
        foreach ($sums as $g) {
            for ($r = 0; $r < 3; ++$r) {
                $squares[$r] += ($inverse[$r][0] * $g[0] + $inverse[$r][1] * $g[1] + $inverse[$r][2] * $g[2]) ** 2;
            }
        }
        $by = $groups / ($groups - 3);

        $sd = static fn (float $square): float => sqrt(self::REFERENCE_TOO * $by * $square + self::FLOOR ** 2);

        return [$sd($squares[0]), $sd($squares[1]), $sd($squares[2])];
    }
}
