<?php

declare(strict_types=1);

namespace Mensura\Flight;

use Mensura\Image\Lens;

/** Where oriented images show places. Metres, pixels of the images as they were taken. */
final readonly class OrientedImages
{
    /**
     * @param list<float>                            $camera    in the order of {@see Lens::NAMES}
     * @param array<int, array{float, float, float}> $positions by image
     * @param array<int, list<float>>                $rotations
     */
    public function __construct(
        public array $camera, public array $positions, public array $rotations, public int $width, public int $height,
    ) {
    }

    /**
     * @return ?array{float, float} null where the image does not show it
     */
    public function pixel(int $image, float $e, float $n, float $h, float $edge = 0.0): ?array
    {
        $m = $this->rotations[$image];
        [$pe, $pn, $ph] = $this->positions[$image];
        [$e, $n, $h] = [$e - $pe, $n - $pn, $h - $ph];
        $z = $m[2] * $e + $m[5] * $n + $m[8] * $h;
        if ($z > -1e-6) {
            return null;
        }
        [$x, $y] = Lens::pixel(
            $this->camera, -($m[0] * $e + $m[3] * $n + $m[6] * $h) / $z, ($m[1] * $e + $m[4] * $n + $m[7] * $h) / $z,
        );

        return $x >= $edge && $y >= $edge && $x <= $this->width - $edge && $y <= $this->height - $edge ? [$x, $y] : null;
    }

    /** @return list<int> those that show a place, the one that looks straightest down first */
    public function showing(float $e, float $n, float $h, int $most, float $edge): array
    {
        $near = [];
        foreach ($this->positions as $i => [$pe, $pn, $ph]) {
            $near[$i] = (($e - $pe) ** 2 + ($n - $pn) ** 2) / max(1e-6, ($ph - $h) ** 2);
        }
        asort($near);
        $showing = [];
        foreach ($near as $i => $_) {
            if (null !== $this->pixel($i, $e, $n, $h, $edge)) {
                $showing[] = $i;
                if (\count($showing) === $most) {
                    break;
                }
            }
        }

        return $showing;
    }

    /** Metres of a pixel on the ground at a height, on the whole. */
    public function groundPixel(float $height): float
    {
        $above = array_map(static fn (array $p): float => $p[2] - $height, $this->positions);

        return array_sum($above) / max(1, \count($above)) / $this->camera[0];
    }

    /**
     * What an image looks at, in plan: where it was taken, and the ends of its middle row at a distance.
     *
     * @return list<array{float, float}>
     */
    public function frustum(int $image, float $distance): array
    {
        $m = $this->rotations[$image];
        [$e, $n] = $this->positions[$image];
        $corners = [[$e, $n]];
        foreach ([0.0, (float) $this->width] as $x) {
            [$u, $v] = Lens::direction($this->camera, $x, 0.5 * $this->height);
            $corners[] = [$e + $distance * ($m[0] * $u - $m[1] * $v - $m[2]), $n + $distance * ($m[3] * $u - $m[4] * $v - $m[5])];
        }

        return $corners;
    }

    /**
     * Corners of what an image shows of the ground at a height; where a corner looks up, nothing.
     *
     * @return list<array{float, float}>
     */
    public function footprint(int $image, float $height): array
    {
        $m = $this->rotations[$image];
        [$pe, $pn, $ph] = $this->positions[$image];
        $corners = [];
        foreach ([[0.0, 0.0], [$this->width, 0.0], [$this->width, $this->height], [0.0, $this->height]] as [$x, $y]) {
            [$u, $v] = Lens::direction($this->camera, (float) $x, (float) $y);
            $dh = $m[6] * $u - $m[7] * $v - $m[8];
            if ($dh > -1e-3) {
                return [];
            }
            $t = ($height - $ph) / $dh;
            $corners[] = [$pe + $t * ($m[0] * $u - $m[1] * $v - $m[2]), $pn + $t * ($m[3] * $u - $m[4] * $v - $m[5])];
        }

        return $corners;
    }
}
