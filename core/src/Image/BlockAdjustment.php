<?php

declare(strict_types=1);

namespace Mensura\Image;

use Mensura\Fault\UnusableInput;

/**
 * Orientation of images, coordinates of points and values of cameras by least squares of all rays at once (bundle adjustment;
 * McGlone, Manual of Photogrammetry, 6th ed., chapter 11), by damped Gauss-Newton steps (Levenberg 1944, Marquardt 1963).
 * Standard deviations are a priori.
 */
final class BlockAdjustment
{
    private const MOST = 60;
    /** Decrease of the sum of squares that a step still promises, below which it is over; and its share of the sum. */
    private const OVER = 1e-10;
    private const SHARE = 1e-12;
    /** Share of the variance of an observation that is left to its residual, below which nothing checks it. */
    private const UNCHECKED = 1e-7;

    private readonly BlockNormals $normals;

    /** @var array<int, array{float, float, float}> */
    private array $positions = [];
    /** @var array<int, list<float>> */
    private array $rotations;
    /** @var array<int, array{float, float, float}> */
    private array $places;
    /** @var list<list<float>> */
    private array $cameras;

    /** @var list<float> */
    private array $values = [];
    /** @var list<float> */
    private array $rhs = [];

    public int $iterations = 0;
    public bool $converged = false;
    /** Number of a point whose rays did not determine it, where that ended the adjustment. */
    public ?int $undetermined = null;

    /** @param ?\Closure(string, float): void $progress */
    public function __construct(
        private readonly Block $b, private readonly UsedRays $used, private readonly ?\Closure $progress = null,
    ) {
        self::refuse($b, $used);
        $begin = new Approximation($b, $used);
        $this->rotations = $begin->rotations;
        $this->places = $begin->places;
        $this->cameras = $b->cameras;
        foreach ($used->images as $i => $_) {
            $this->positions[$i] = $b->positions[$i];
        }
        $this->normals = new BlockNormals($b, $used);
    }

    /** @throws UnusableInput */
    private static function refuse(Block $b, UsedRays $used): void
    {
        $positions = \count(array_filter(array_intersect_key($b->positionSds, $used->images)));
        $control = $used->control($b);
        if ($control < 3 && $positions < 3) {
            $words = 'the datum is not determined: %d control points are seen, %d image positions have sd; three of either are needed';
            throw new UnusableInput('', \sprintf($words, $control, $positions));
        }
    }

    /**
     * @param int $most steps at most
     *
     * @throws UnusableInput where something is not determined, naming it
     */
    public function run(int $most = self::MOST): BlockResult
    {
        $damping = 1e-4;
        $cost = $next = $this->cost();
        $promised = \INF;
        for (; $this->iterations < $most;) {
            ++$this->iterations;
            if (null !== $this->progress) {
                ($this->progress)('adjusting', min(0.9, 0.1 * $this->iterations));
            }
            $this->build();
            $over = self::OVER + (is_finite($cost) ? self::SHARE * $cost : 0.0);
            for ($try = 0; $try < 12; ++$try) {
                $step = $this->step($damping);
                $promised = 0.0;
                foreach ($step as $k => $d) {
                    $promised += $d * $this->rhs[$k];
                }
                $kept = [$this->positions, $this->rotations, $this->places, $this->cameras];
                $this->move($step);
                $next = $this->cost();
                if ($next <= $cost || $promised < $over) {
                    break;
                }
                [$this->positions, $this->rotations, $this->places, $this->cameras] = $kept;
                $damping = max(1e-6, 10.0 * $damping);
            }
            if ($next > $cost && $promised >= $over) {
                break; // no step helps any more
            }
            $cost = $next;
            if ($promised < $over && $damping < 1e-7) {
                $this->converged = true;
                break;
            }
            $damping = $damping < 1e-7 ? 0.0 : 0.1 * $damping;
        }

        return $this->result($cost);
    }

    /** @return list<float> */
    private function step(float $damping): array
    {
        $matrix = $this->normals->matrix;
        $values = $this->values;
        if ($damping > 0.0) {
            foreach ($matrix->diagonalAt as $k => $at) {
                $w = ($matrix->first[$k + 1] ?? $matrix->size) - $matrix->first[$k];
                for ($i = 0; $i < $w; ++$i) {
                    $values[$at + $i * ($w + 1)] *= 1.0 + $damping;
                }
            }
        }
        $null = $matrix->factor($values);
        if ([] !== $null) {
            $this->undetermined($null[0]);
        }

        return $matrix->solve($this->rhs);
    }

    /** @throws UnusableInput */
    private function undetermined(int $unknown): never
    {
        $first = $this->normals->matrix->first;
        foreach ($this->normals->ofImage as $i => $k) {
            if ($unknown >= $first[$k] && $unknown < $first[$k] + 6) {
                throw new UnusableInput('', \sprintf('image %s: its rays do not determine it', $this->b->imageIds[$i]));
            }
        }
        foreach ($this->normals->ofPoint as $p => $k) {
            if ($unknown >= $first[$k] && $unknown < $first[$k] + 3) {
                $this->undetermined = $p;
                throw new UnusableInput('', \sprintf('point %s: its rays do not determine it', $this->b->pointIds[$p]));
            }
        }
        throw new UnusableInput('', 'the values of a camera that are to be solved are not determined; solve fewer');
    }

    /** Sum of squares of all observations, each over its standard deviation; infinite where a point lies behind an image. */
    private function cost(): float
    {
        $b = $this->b;
        $sum = 0.0;
        foreach ($this->used->rays as $r) {
            $i = $b->rayImage[$r];
            $pixel = $this->pixel($i, $this->places[$b->rayPoint[$r]]);
            if (null === $pixel) {
                return \INF;
            }
            $sd = $b->raySd[$r];
            $sum += (($pixel[0] - $b->rayX[$r]) / $sd) ** 2 + (($pixel[1] - $b->rayY[$r]) / $sd) ** 2;
        }
        foreach ($this->given() as [$value, $given, $sd]) {
            $sum += (($value - $given) / $sd) ** 2;
        }

        return [] === $this->b->turnSds ? $sum : $sum + $this->turnCost();
    }

    /** @return iterable<array{float, float, float, int}> value, what was given, its sd, and its unknown */
    private function given(): iterable
    {
        $first = $this->normals->matrix->first;
        foreach ($this->normals->ofPoint as $p => $k) {
            foreach ($this->b->placeSds[$p] ?? [] as $c => $sd) {
                yield [$this->places[$p][$c], $this->b->places[$p][$c] ?? 0.0, $sd, $first[$k] + $c];
            }
        }
        foreach ($this->normals->ofImage as $i => $k) {
            foreach ($this->b->positionSds[$i] ?? [] as $c => $sd) {
                yield [$this->positions[$i][$c], $this->b->positions[$i][$c], $sd, $first[$k] + $c];
            }
        }
    }

    /** Of observed rotations: sum of squares over their standard deviations. */
    private function turnCost(): float
    {
        $sum = 0.0;
        foreach ($this->turns() as [, $turn, $sds]) {
            foreach ($sds as $axis => $sd) {
                $sum += ($turn[$axis] / $sd) ** 2;
            }
        }

        return $sum;
    }

    /**
     * Of images whose rotation is observed: how far it is turned from what was given, about e, n and h, and what that is known to.
     *
     * @return list<array{int, array{float, float, float}, array{float, float, float}}> image; radians
     */
    private function turns(): array
    {
        $turns = [];
        foreach ($this->normals->ofImage as $i => $_) {
            $given = $this->b->rotationsGiven[$i] ?? null;
            $sd = $this->b->turnSds[$i] ?? null;
            if (null !== $given && null !== $sd) {
                $turns[] = [$i, Rotation::apart($given, $this->rotations[$i]), [deg2rad($sd[0]), deg2rad($sd[1]), deg2rad($sd[2])]];
            }
        }

        return $turns;
    }

    /**
     * @param array{float, float, float} $place
     *
     * @return ?array{float, float} null where it lies behind the image
     */
    public function pixel(int $image, array $place): ?array
    {
        [$x, $y, $z] = self::within($this->rotations[$image], $this->positions[$image], $place);

        return $z > -1e-12 ? null : Lens::pixel($this->cameras[$this->b->cameraOf[$image]], -$x / $z, $y / $z);
    }

    /**
     * @param list<float>                $m
     * @param array{float, float, float} $c
     * @param array{float, float, float} $p
     *
     * @return array{float, float, float} in camera axes
     */
    private static function within(array $m, array $c, array $p): array
    {
        [$e, $n, $h] = [$p[0] - $c[0], $p[1] - $c[1], $p[2] - $c[2]];

        return [$m[0] * $e + $m[3] * $n + $m[6] * $h, $m[1] * $e + $m[4] * $n + $m[7] * $h, $m[2] * $e + $m[5] * $n + $m[8] * $h];
    }

    /**
     * Residuals of a ray and their slopes, each over its standard deviation.
     *
     * @return array{float, float, list<float>, list<float>, list<float>, list<float>, list<array{float, float}>} x, y, slopes of x
     *     and y by the point (by the position they are the same with the other sign), by the rotation, and by values of the camera
     */
    private function ray(int $r): array
    {
        $b = $this->b;
        $i = $b->rayImage[$r];
        $m = $this->rotations[$i];
        $camera = $this->cameras[$b->cameraOf[$i]];
        [$x, $y, $z] = self::within($m, $this->positions[$i], $this->places[$b->rayPoint[$r]]);
        [$u, $v] = [-$x / $z, $y / $z];
        [$px, $py] = Lens::pixel($camera, $u, $v);
        [$uu, $uv, $vu, $vv] = Lens::slopes($camera, $u, $v);
        $g = 1.0 / $b->raySd[$r];
        // By the place in camera axes: u = -x/z, v = y/z.
        $ax = -$g * $uu / $z;
        $ay = $g * $uv / $z;
        $az = $g * ($uu * $x - $uv * $y) / ($z * $z);
        $bx = -$g * $vu / $z;
        $by = $g * $vv / $z;
        $bz = $g * ($vu * $x - $vv * $y) / ($z * $z);
        $values = [];
        foreach (isset($this->normals->ofCamera[$b->cameraOf[$i]]) ? Lens::byValues($camera, $u, $v) : [] as [$s, $t]) {
            $values[] = [$g * $s, $g * $t];
        }

        return [
            $g * ($px - $b->rayX[$r]), $g * ($py - $b->rayY[$r]),
            [$ax * $m[0] + $ay * $m[1] + $az * $m[2], $ax * $m[3] + $ay * $m[4] + $az * $m[5], $ax * $m[6] + $ay * $m[7] + $az * $m[8]],
            [$bx * $m[0] + $by * $m[1] + $bz * $m[2], $bx * $m[3] + $by * $m[4] + $bz * $m[5], $bx * $m[6] + $by * $m[7] + $bz * $m[8]],
            // A turn w of the camera moves the place in it by itself cross w.
            [$ay * $z - $az * $y, $az * $x - $ax * $z, $ax * $y - $ay * $x],
            [$by * $z - $bz * $y, $bz * $x - $bx * $z, $bx * $y - $by * $x],
            $values,
        ];
    }

    private function build(): void
    {
        $matrix = $this->normals->matrix;
        $n = $this->normals;
        $first = $matrix->first;
        $diagonal = $matrix->diagonalAt;
        $v = array_fill(0, $matrix->valueCount, 0.0);
        $g = array_fill(0, max(1, $matrix->size), 0.0);
        foreach ($this->used->rays as $r) {
            $i = $this->b->rayImage[$r];
            $p = $this->b->rayPoint[$r];
            [$rx, $ry, $a, $b, $c, $d, $values] = $this->ray($r);
            [$a0, $a1, $a2] = $a;
            [$b0, $b1, $b2] = $b;
            [$c0, $c1, $c2] = $c;
            [$d0, $d1, $d2] = $d;
            // What position and point share, up to the sign.
            $s = [
                $a0 * $a0 + $b0 * $b0, $a0 * $a1 + $b0 * $b1, $a0 * $a2 + $b0 * $b2, $a1 * $a1 + $b1 * $b1, $a1 * $a2 + $b1 * $b2,
                $a2 * $a2 + $b2 * $b2,
            ];
            $full = [$s[0], $s[1], $s[2], $s[1], $s[3], $s[4], $s[2], $s[4], $s[5]];
            // Rows rotation, columns point; with the other sign columns position.
            $t = [
                $c0 * $a0 + $d0 * $b0, $c0 * $a1 + $d0 * $b1, $c0 * $a2 + $d0 * $b2, $c1 * $a0 + $d1 * $b0, $c1 * $a1 + $d1 * $b1,
                $c1 * $a2 + $d1 * $b2, $c2 * $a0 + $d2 * $b0, $c2 * $a1 + $d2 * $b1, $c2 * $a2 + $d2 * $b2,
            ];
            $k = $n->ofImage[$i];
            $at = $diagonal[$k];
            $cross = $n->crossOf[$i];
            for ($q = 0; $q < 9; ++$q) {
                $v[$at + $q] += $full[$q];
                $v[$cross + $q] -= $t[$q];
            }
            $at = $diagonal[$k + 1];
            $v[$at] += $c0 * $c0 + $d0 * $d0;
            $v[$at + 1] += $c0 * $c1 + $d0 * $d1;
            $v[$at + 2] += $c0 * $c2 + $d0 * $d2;
            $v[$at + 4] += $c1 * $c1 + $d1 * $d1;
            $v[$at + 5] += $c1 * $c2 + $d1 * $d2;
            $v[$at + 8] += $c2 * $c2 + $d2 * $d2;
            $f = $first[$k];
            $ga = [$a0 * $rx + $b0 * $ry, $a1 * $rx + $b1 * $ry, $a2 * $rx + $b2 * $ry];
            for ($q = 0; $q < 3; ++$q) {
                $g[$f + $q] += $ga[$q];
            }
            $g[$f + 3] -= $c0 * $rx + $d0 * $ry;
            $g[$f + 4] -= $c1 * $rx + $d1 * $ry;
            $g[$f + 5] -= $c2 * $rx + $d2 * $ry;
            $j = $n->ofPoint[$p] ?? null;
            if (null !== $j) {
                $at = $diagonal[$j];
                $one = $n->position[$i][$p];
                $two = $n->rotation[$i][$p];
                for ($q = 0; $q < 9; ++$q) {
                    $v[$at + $q] += $full[$q];
                    $v[$one + $q] -= $full[$q];
                    $v[$two + $q] += $t[$q];
                }
                for ($q = 0; $q < 3; ++$q) {
                    $g[$first[$j] + $q] -= $ga[$q];
                }
            }
            foreach ([] === $values ? [] : $n->ofCamera[$this->b->cameraOf[$i]] as [$block, $which]) {
                foreach ($which as $row => $value) {
                    [$sx, $sy] = $values[$value];
                    $g[$first[$block] + $row] -= $sx * $rx + $sy * $ry;
                    for ($q = 0; $q < 3; ++$q) {
                        $with = $sx * $a[$q] + $sy * $b[$q];
                        $v[$n->camera[$block][$k] + 3 * $row + $q] -= $with;
                        $v[$n->camera[$block][$k + 1] + 3 * $row + $q] += $sx * $c[$q] + $sy * $d[$q];
                        if (null !== $j) {
                            $v[$n->camera[$block][$j] + 3 * $row + $q] += $with;
                        }
                    }
                    foreach ($n->ofCamera[$this->b->cameraOf[$i]] as [$other, $others]) {
                        if ($other > $block) {
                            break;
                        }
                        $at = ($other === $block ? $diagonal[$block] : $n->camera[$block][$other]) + $row * \count($others);
                        foreach ($others as $column => $o) {
                            $v[$at + $column] += $sx * $values[$o][0] + $sy * $values[$o][1];
                        }
                    }
                }
            }
        }
        foreach ($this->given() as [$value, $given, $sd, $unknown]) {
            $weight = 1.0 / ($sd * $sd);
            $g[$unknown] -= $weight * ($value - $given);
        }
        foreach ([[$n->ofPoint, $this->b->placeSds], [$n->ofImage, $this->b->positionSds]] as [$blocks, $sds]) {
            foreach ($blocks as $of => $k) {
                foreach ($sds[$of] ?? [] as $c => $sd) {
                    $v[$diagonal[$k] + 4 * $c] += 1.0 / ($sd * $sd);
                }
            }
        }
        $this->values = $v;
        $this->rhs = $g;
        if ([] !== $this->b->turnSds) {
            $this->holdTurns();
        }
    }

    /** Observed rotations into the normal equations. */
    private function holdTurns(): void
    {
        $n = $this->normals;
        foreach ($this->turns() as [$image, $turn, $sds]) {
            $block = $n->ofImage[$image] + 1;
            $first = $n->matrix->first[$block];
            $at = $n->matrix->diagonalAt[$block];
            $m = $this->rotations[$image];
            // A small turn w of the camera about its own axes turns it by M w about those of the ground.
            foreach ($sds as $axis => $sd) {
                $weight = 1.0 / ($sd * $sd);
                for ($q = 0; $q < 3; ++$q) {
                    $this->rhs[$first + $q] -= $weight * $m[3 * $axis + $q] * $turn[$axis];
                    for ($p = 0; $p < 3; ++$p) {
                        $this->values[$at + 3 * $q + $p] += $weight * $m[3 * $axis + $q] * $m[3 * $axis + $p];
                    }
                }
            }
        }
    }

    /** @param list<float> $step */
    private function move(array $step): void
    {
        $first = $this->normals->matrix->first;
        foreach ($this->normals->ofPoint as $p => $k) {
            $f = $first[$k];
            [$e, $n, $h] = $this->places[$p];
            $this->places[$p] = [$e + $step[$f], $n + $step[$f + 1], $h + $step[$f + 2]];
        }
        foreach ($this->normals->ofImage as $i => $k) {
            $f = $first[$k];
            [$e, $n, $h] = $this->positions[$i];
            $this->positions[$i] = [$e + $step[$f], $n + $step[$f + 1], $h + $step[$f + 2]];
            $this->rotations[$i] = Rotation::turned($this->rotations[$i], $step[$f + 3], $step[$f + 4], $step[$f + 5]);
        }
        foreach ($this->normals->ofCamera as $c => $blocks) {
            foreach ($blocks as [$k, $which]) {
                foreach ($which as $row => $value) {
                    $this->cameras[$c][$value] += $step[$first[$k] + $row];
                }
            }
        }
    }

    private function result(float $cost): BlockResult
    {
        if (null !== $this->progress) {
            ($this->progress)('precision', 0.92);
        }
        $this->build();
        $this->step(0.0);
        $n = $this->normals;
        $q = $n->matrix->selectedInverse();
        $at = $n->matrix->diagonalAt;
        $result = new BlockResult();
        $result->converged = $this->converged;
        $result->iterations = $this->iterations;
        $weighted = \count(array_filter(array_intersect_key($this->b->placeSds, $n->ofPoint)));
        $positions = \count(array_filter(array_intersect_key($this->b->positionSds, $n->ofImage)));
        $turns = \count(array_intersect_key($this->b->turnSds, $n->ofImage));
        $result->redundancy = 2 * \count($this->used->rays) + 3 * ($weighted + $positions + $turns) - $n->matrix->size;
        $result->sigma0 = $result->redundancy > 0 ? sqrt($cost / $result->redundancy) : null;
        $result->cameras = $this->cameras;
        $root = static fn (float $v): float => sqrt(max(0.0, $v));
        foreach ($n->ofCamera as $c => $blocks) {
            foreach ($blocks as [$k, $which]) {
                foreach ($which as $row => $value) {
                    $result->cameraSds[$c][$value] = $root($q[$at[$k] + $row * (\count($which) + 1)]);
                }
            }
        }
        foreach ($n->ofImage as $i => $k) {
            $result->positions[$i] = $this->positions[$i];
            $result->rotations[$i] = $this->rotations[$i];
            $result->positionSds[$i] = [$root($q[$at[$k]]), $root($q[$at[$k] + 4]), $root($q[$at[$k] + 8])];
            $result->angleSds[$i] = Rotation::deviations($this->rotations[$i], self::symmetric($q, $at[$k + 1]));
        }
        foreach ($this->used->points as $p => $_) {
            $result->places[$p] = $this->places[$p];
            $k = $n->ofPoint[$p] ?? null;
            $result->placeSds[$p] = null === $k ? [0.0, 0.0, 0.0] : [$root($q[$at[$k]]), $root($q[$at[$k] + 4]), $root($q[$at[$k] + 8])];
        }
        foreach ($this->used->rays as $r) {
            $result->rays[$r] = $this->residual($r, $q);
        }

        return $result;
    }

    /**
     * @param list<float> $q
     *
     * @return list<float> a block of the diagonal, of which the upper triangle counts
     */
    private static function symmetric(array $q, int $at): array
    {
        return [$q[$at], $q[$at + 1], $q[$at + 2], $q[$at + 1], $q[$at + 4], $q[$at + 5], $q[$at + 2], $q[$at + 5], $q[$at + 8]];
    }

    /**
     * @param list<float> $q
     *
     * @return array{float, float, ?float} pixels, and the greater of both over its own standard deviation
     */
    private function residual(int $r, array $q): array
    {
        $n = $this->normals;
        $i = $this->b->rayImage[$r];
        $p = $this->b->rayPoint[$r];
        [$rx, $ry, $a, $b, $c, $d, $values] = $this->ray($r);
        $minus = static fn (array $s): array => array_map(static fn (float $v): float => -$v, $s);
        $k = $n->ofImage[$i];
        // Blocks of unknowns with the slopes of x and y by them.
        $parts = [[$k, $minus($a), $minus($b)], [$k + 1, $c, $d]];
        if (isset($n->ofPoint[$p])) {
            array_unshift($parts, [$n->ofPoint[$p], $a, $b]);
        }
        foreach ([] === $values ? [] : $n->ofCamera[$this->b->cameraOf[$i]] as [$block, $which]) {
            $of = array_map(static fn (int $w): array => $values[$w], $which);
            $parts[] = [$block, array_column($of, 0), array_column($of, 1)];
        }
        $left = [1.0, 1.0];
        foreach ($parts as $one => [$row, $sx, $sy]) {
            foreach ($parts as $two => [$column, $tx, $ty]) {
                if ($two > $one) {
                    continue;
                }
                $width = \count($tx);
                $place = $row === $column ? $n->matrix->diagonalAt[$row] : $this->place($i, $p, $row, $column);
                $factor = $row === $column ? 1.0 : 2.0;
                foreach ($sx as $u => $vx) {
                    foreach ($tx as $w => $vt) {
                        $cell = $row === $column && $w < $u ? $q[$place + $w * $width + $u] : $q[$place + $u * $width + $w];
                        $left[0] -= $factor * $cell * $vx * $vt;
                        $left[1] -= $factor * $cell * $sy[$u] * $ty[$w];
                    }
                }
            }
        }
        $sd = $this->b->raySd[$r];
        $worst = null;
        foreach ([[$rx, $left[0]], [$ry, $left[1]]] as [$v, $share]) {
            if ($share > self::UNCHECKED && (null === $worst || abs($v) / sqrt($share) > abs($worst))) {
                $worst = $v / sqrt($share);
            }
        }

        return [$rx * $sd, $ry * $sd, $worst];
    }

    /** Place of the block of two different blocks of unknowns of a ray, the later one in rows. */
    private function place(int $i, int $p, int $row, int $column): int
    {
        $n = $this->normals;
        $k = $n->ofImage[$i];

        return match (true) {
            $row === $k => $n->position[$i][$p],
            $row === $k + 1 => $column === $k ? $n->crossOf[$i] : $n->rotation[$i][$p],
            default => $n->camera[$row][$column],
        };
    }

    /**
     * A check point from its rays, with everything else as it is.
     *
     * @param list<int>                   $rays
     * @param ?array{float, float, float} $near where to begin
     *
     * @return ?array{array{float, float, float}, array{float, float, float}} coordinates and standard deviations; null where the
     *     rays do not say
     */
    public function intersected(array $rays, ?array $near): ?array
    {
        return (new Intersection($this->b, $this->cameras, $this->positions, $this->rotations))->of($rays, $near);
    }
}
