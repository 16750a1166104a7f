<?php

declare(strict_types=1);

namespace Mensura\Rays;

use Mensura\Flight\OrientedImages;
use Mensura\Image\Block;
use Mensura\Image\Intersection;
use Mensura\Image\Lens;
use Mensura\Image\Rotation;

/**
 * Rays of pixels of oriented images: the line on which another image shows them (the epipolar line; Kraus, Photogrammetry, section
 * 4.3), and where several meet. Metres, pixels; depths are along the axis of the camera.
 */
final readonly class ImageRays
{
    /** Pixels a ray is known to, clicked or matched. */
    public const SD = 0.5;

    private const PARTS = 32;

    public function __construct(public OrientedImages $images)
    {
    }

    /** @return array{float, float, float} e, n, h at a depth along the ray of a pixel */
    public function at(int $image, float $x, float $y, float $depth): array
    {
        [$u, $v] = Lens::direction($this->images->camera, $x, $y);
        $d = Rotation::ground($this->images->rotations[$image], [$u, -$v, -1.0]);
        $p = $this->images->positions[$image];

        return [$p[0] + $depth * $d[0], $p[1] + $depth * $d[1], $p[2] + $depth * $d[2]];
    }

    /**
     * How far a place lies before an image; negative behind it.
     *
     * @param array{float, float, float} $place
     */
    public function depth(int $image, array $place): float
    {
        $m = $this->images->rotations[$image];
        $p = $this->images->positions[$image];

        return -($m[2] * ($place[0] - $p[0]) + $m[5] * ($place[1] - $p[1]) + $m[8] * ($place[2] - $p[2]));
    }

    /**
     * Depths an image shows known places at about a pixel: of the nearest of them, with room.
     *
     * @param list<float> $places e, n, h one after the other
     *
     * @return ?array{float, float} nearest and farthest; null where it shows none
     */
    public function depths(int $image, float $x, float $y, array $places, int $nearest = 40): ?array
    {
        $off = $depths = [];
        foreach (array_chunk($places, 3) as $k => [$e, $n, $h]) {
            $pixel = $this->images->pixel($image, $e, $n, $h);
            if (null !== $pixel) {
                $off[$k] = hypot($pixel[0] - $x, $pixel[1] - $y);
                $depths[$k] = $this->depth($image, [$e, $n, $h]);
            }
        }
        asort($off);
        $near = array_map(static fn (int $k): float => $depths[$k], \array_slice(array_keys($off), 0, $nearest));

        return [] === $near ? null : [0.75 * min($near), 1.35 * max($near)];
    }

    /**
     * The line on which another image shows the ray of a pixel between two depths, as far as the image reaches; a lens bends it.
     *
     * @return list<array{float, float}>
     */
    public function line(int $image, float $x, float $y, int $other, float $near, float $far): array
    {
        $line = [];
        for ($k = 0; $k <= self::PARTS; ++$k) {
            // Even steps of what is one over the depth are even steps along the line.
            $t = $k / self::PARTS;
            $pixel = $this->images->pixel($other, ...$this->at($image, $x, $y, 1.0 / ((1.0 - $t) / $near + $t / $far)));
            if (null !== $pixel) {
                $line[] = $pixel;
            }
        }

        return $line;
    }

    /**
     * Where rays meet, with how far each image is off it.
     *
     * @param list<array{int, float, float}> $rays image, x, y
     *
     * @return ?array{array{float, float, float}, array{float, float, float}, list<array{float, float}>} place, standard deviations as if
     *     the images were known without error, and residuals (shown minus picked); null where they do not meet
     */
    public function meet(array $rays): ?array
    {
        if (\count($rays) < 2) {
            return null;
        }
        $b = new Block();
        foreach ($rays as [$image, $x, $y]) {
            $b->rayImage[] = $image;
            $b->rayPoint[] = 0;
            $b->rayX[] = $x;
            $b->rayY[] = $y;
            $b->raySd[] = self::SD;
            $b->cameraOf[$image] = 0;
        }
        $near = $this->nearest($rays);
        if (null === $near) {
            return null;
        }
        $met = new Intersection($b, [$this->images->camera], $this->images->positions, $this->images->rotations);
        $place = $met->of(array_keys($rays), $near);
        if (null === $place) {
            return null;
        }
        $off = [];
        foreach ($rays as [$image, $x, $y]) {
            $pixel = $this->images->pixel($image, ...[...$place[0], -1e6]);
            if (null === $pixel) {
                return null;
            }
            $off[] = [$pixel[0] - $x, $pixel[1] - $y];
        }

        return [$place[0], $place[1], $off];
    }

    /**
     * The ray without which the others agree best, where one of them is off by more than so many pixels.
     *
     * @param list<array{int, float, float}> $rays
     *
     * @return ?int number of the ray; null where all agree, or two alone cannot say which of them is wrong
     */
    public function mistaken(array $rays, float $beyond): ?int
    {
        $worst = static fn (array $off): float => max(array_map(static fn (array $o): float => hypot($o[0], $o[1]), $off));
        $all = $this->meet($rays);
        if (\count($rays) < 3 || null !== $all && $worst($all[2]) < $beyond) {
            return null;
        }
        $best = [null, \INF];
        foreach ($rays as $k => $_) {
            $less = $this->meet(array_values(array_diff_key($rays, [$k => true])));
            if (null !== $less && $worst($less[2]) < $best[1]) {
                $best = [$k, $worst($less[2])];
            }
        }

        return $best[0];
    }

    /**
     * The place with the least sum of squares of distances to rays, to begin with.
     *
     * @param list<array{int, float, float}> $rays
     *
     * @return ?array{float, float, float} null where they are parallel, or it lies behind one of them
     */
    private function nearest(array $rays): ?array
    {
        $n = array_fill(0, 6, 0.0);
        $g = [0.0, 0.0, 0.0];
        [$e0, $n0, $h0] = $this->images->positions[$rays[0][0]];
        foreach ($rays as [$image, $x, $y]) {
            [$u, $v] = Lens::direction($this->images->camera, $x, $y);
            $l = sqrt($u * $u + $v * $v + 1.0);
            $d = Rotation::ground($this->images->rotations[$image], [$u / $l, -$v / $l, -1.0 / $l]);
            [$e, $f, $h] = $this->images->positions[$image];
            $p = [$e - $e0, $f - $n0, $h - $h0];
            $dot = $d[0] * $p[0] + $d[1] * $p[1] + $d[2] * $p[2];
            foreach ([[0, 0], [0, 1], [0, 2], [1, 1], [1, 2], [2, 2]] as $k => [$i, $j]) {
                $n[$k] += ($i === $j ? 1.0 : 0.0) - $d[$i] * $d[$j];
            }
            foreach ([0, 1, 2] as $k) {
                $g[$k] += $p[$k] - $dot * $d[$k];
            }
        }
        [$a, $b, $c, $d, $e, $f] = $n;
        $det = $a * ($d * $f - $e * $e) - $b * ($b * $f - $c * $e) + $c * ($b * $e - $c * $d);
        if (abs($det) < 1e-9) {
            return null;
        }
        $place = [
            $e0 + (($d * $f - $e * $e) * $g[0] + ($c * $e - $b * $f) * $g[1] + ($b * $e - $c * $d) * $g[2]) / $det,
            $n0 + (($c * $e - $b * $f) * $g[0] + ($a * $f - $c * $c) * $g[1] + ($b * $c - $a * $e) * $g[2]) / $det,
            $h0 + (($b * $e - $c * $d) * $g[0] + ($b * $c - $a * $e) * $g[1] + ($a * $d - $b * $b) * $g[2]) / $det,
        ];
        foreach ($rays as [$image]) {
            if ($this->depth($image, $place) < 1e-3) {
                return null;
            }
        }

        return $place;
    }
}
