<?php

declare(strict_types=1);

namespace Demo\Flight;

use Mensura\Image\Lens;
use Mensura\Image\Rotation;

/**
 * A made-up field with a spoil bank, and a flight over it: images rendered by following the ray of every pixel to the ground. The
 * same seed makes the same images. Metres; pixels as the contract of block has them.
 */
final class FlightScene
{
    public const WIDTH = 480;
    public const HEIGHT = 360;

    /** Above the field. */
    public const ABOVE = 60.0;
    private const STRIPS = 3;
    private const ALONG = 5;

    /** Between images of a strip, and between strips: overlaps of 75 and 60 percent. */
    private const BASE = 13.5;
    private const SIDE = 28.0;

    /** Of the true camera, in the order of {@see Lens::NAMES}; the mission file says what its maker says of it. */
    public const CAMERA = [402.6, 241.3, 178.9, -0.031, 0.012, 0.0, 0.0, 0.0];
    public const SAID = [400.0, 240.0, 180.0, 0.0, 0.0, 0.0, 0.0, 0.0];

    /** Standard deviations of the positions the images say: plan and height. */
    public const SD = [0.8, 1.2];

    private const STEPS = 1 << 30;
    private const LAYERS = [[0.7, 0.26, 0.88, 0.47], [1.9, 0.34, 0.45, 0.89], [5.3, 0.26, 0.96, 0.28], [17.0, 0.14, 0.7, 0.71]];

    private \Random\Randomizer $random;

    /** @var list<array{array{float, float, float}, list<float>}> true positions and rotations */
    public readonly array $truth;

    public function __construct(public readonly float $east, public readonly float $north, public readonly float $ground)
    {
        $this->random = new \Random\Randomizer(new \Random\Engine\Mt19937(20310504));
        $truth = [];
        for ($s = 0; $s < self::STRIPS; ++$s) {
            for ($k = 0; $k < self::ALONG; ++$k) {
                // To and fro: the camera turns with the way it flies, north and south.
                $step = 0 === $s % 2 ? $k : self::ALONG - 1 - $k;
                $e = $east + ($s - 0.5 * (self::STRIPS - 1)) * self::SIDE + $this->normal(0.7);
                $n = $north + ($step - 0.5 * (self::ALONG - 1)) * self::BASE + $this->normal(0.7);
                $kappa = (0 === $s % 2 ? 0.0 : 180.0) + $this->normal(2.0);
                $truth[] = [
                    [$e, $n, $ground + self::ABOVE + $this->normal(0.8)], Rotation::of($this->normal(1.5), $this->normal(1.5), $kappa),
                ];
            }
        }
        $this->truth = $truth;
    }

    private function even(): float
    {
        return ($this->random->getInt(0, self::STEPS - 1) + 0.5) / self::STEPS;
    }

    /** Box and Muller 1958. */
    public function normal(float $sd): float
    {
        return $sd * sqrt(-2.0 * log($this->even())) * cos(2.0 * \M_PI * $this->even());
    }

    /** Height of the ground: a rolling field and the bank. */
    public function height(float $e, float $n): float
    {
        [$x, $y] = [$e - $this->east, $n - $this->north];
        $bank = 1.0 - ($x - 8.0) * ($x - 8.0) / 400.0 - ($y + 4.0) * ($y + 4.0) / 196.0;

        return $this->ground + 0.9 * sin(0.061 * $x + 0.4) * cos(0.047 * $y) + ($bank > 0.0 ? 4.5 * $bank * (2.0 - $bank) : 0.0);
    }

    /** How bright the ground is, 0 to 255: noise between the corners of squares of several sizes. */
    public function shade(float $e, float $n): float
    {
        [$x, $y] = [$e - $this->east + 500.0, $n - $this->north + 500.0];
        // Squares of each size are turned, for nothing in a field runs north.
        $sum = Texture::at($x, $y, self::LAYERS);
        // A trodden path across it.
        $off = $y - 512.0 - 7.0 * sin(0.05 * $x) - 0.3 * ($x - 500.0);

        return min(255.0, 20.0 + 205.0 * $sum + 45.0 * exp(-$off * $off / 1.6));
    }

    /**
     * Where the ray of a pixel meets the ground.
     *
     * @return array{float, float, float}
     */
    public function meets(int $image, float $x, float $y): array
    {
        [[$e, $n, $h], $r] = $this->truth[$image];
        [$u, $v] = Lens::direction(self::CAMERA, $x, $y);
        [$de, $dn, $dh] = Rotation::ground($r, [$u, -$v, -1.0]);
        $t = -self::ABOVE / $dh;
        for ($k = 0; $k < 12; ++$k) {
            $t += ($h + $t * $dh - $this->height($e + $t * $de, $n + $t * $dn)) / -$dh;
        }

        return [$e + $t * $de, $n + $t * $dn, $h + $t * $dh];
    }

    /**
     * @param array{float, float, float} $place
     *
     * @return ?array{float, float} the true pixel; null where the image does not show it
     */
    public function pixel(int $image, array $place): ?array
    {
        [[$e, $n, $h], $r] = $this->truth[$image];
        [$a, $b, $c] = [$place[0] - $e, $place[1] - $n, $place[2] - $h];
        $z = $r[2] * $a + $r[5] * $b + $r[8] * $c;
        [$x, $y] = Lens::pixel(
            self::CAMERA, -($r[0] * $a + $r[3] * $b + $r[6] * $c) / $z, ($r[1] * $a + $r[4] * $b + $r[7] * $c) / $z,
        );

        return $x > 4.0 && $y > 4.0 && $x < self::WIDTH - 4.0 && $y < self::HEIGHT - 4.0 ? [$x, $y] : null;
    }

    /** @return list<int> brightness of each pixel, row by row from the top left, with the noise of the sensor */
    public function render(int $image): array
    {
        // Directions change so evenly that every second is worked out, and the others lie between.
        $pixels = [];
        [[$e0, $n0, $h0], $r] = $this->truth[$image];
        $noise = 12345 + 7919 * $image;
        $t = self::ABOVE;
        for ($row = 0; $row < self::HEIGHT; ++$row) {
            for ($column = 0; $column < self::WIDTH; ++$column) {
                [$u, $v] = self::near($column + 0.5, $row + 0.5);
                $de = $r[0] * $u - $r[1] * $v - $r[2];
                $dn = $r[3] * $u - $r[4] * $v - $r[5];
                $dh = $r[6] * $u - $r[7] * $v - $r[8];
                for ($k = 0; $k < 3; ++$k) {
                    $t += ($h0 + $t * $dh - $this->height($e0 + $t * $de, $n0 + $t * $dn)) / -$dh;
                }
                $noise = ($noise * 1103515245 + 12345) & 0x7FFFFFFF;
                $grey = (int) round($this->shade($e0 + $t * $de, $n0 + $t * $dn) + 5.0 * ($noise / 0x7FFFFFFF - 0.5));
                $pixels[] = max(0, min(255, $grey));
            }
        }

        return $pixels;
    }

    /**
     * The direction of a pixel by few steps, enough for 0.001 of one.
     *
     * @return array{float, float}
     */
    private static function near(float $px, float $py): array
    {
        [$f, $cx, $cy, $k1, $k2] = self::CAMERA;
        [$x0, $y0] = [($px - $cx) / $f, ($py - $cy) / $f];
        [$x, $y] = [$x0, $y0];
        for ($k = 0; $k < 4; ++$k) {
            $r2 = $x * $x + $y * $y;
            $radial = 1.0 + $r2 * ($k1 + $r2 * $k2);
            [$x, $y] = [$x0 / $radial, $y0 / $radial];
        }

        return [$x, $y];
    }
}
