<?php

declare(strict_types=1);

namespace Demo\Flight;

use Mensura\Image\Lens;
use Mensura\Image\Rotation;

/**
 * A made-up barn with a bay and a door, and a rover whose camera looks at it: groups of images rendered by following the ray of every
 * pixel to the face it meets. The wall faces south; x runs east along it, y north, z up, all from a corner of the yard. The same seed
 * makes the same images.
 */
final class WallScene
{
    public const WIDTH = 640;
    public const HEIGHT = 480;
    public const DISTANCE = 10.0;
    /** A camera of a rover is calibrated: what is said of it is true. In the order of {@see Lens::NAMES}. */
    public const CAMERA = [520.0, 321.5, 238.8, -0.042, 0.018, 0.0, 0.0, 0.0];
    /** Standard deviations: plan, height, tilt, heading; metres, degrees. */
    public const SD = [0.006, 0.010, 0.10, 0.15];

    /** The wall, the bay before it and the back of the door in it; the top of wall and bay, metres. */
    public const WALL = 10.0;
    private const BAY = [1.5, 5.0, 8.8, 3.2];
    private const DOOR = [-4.0, -2.6, 10.35, 2.2];
    private const TOP = 6.5;
    private const ENDS = [-9.0, 10.0];

    /** Where each group goes: from x, to x, y, images, turned left by degrees. */
    public const GROUPS = ['barn, front' => [-4.5, 4.5, 0.0, 8, 0.0], 'barn, bay' => [4.5, 8.0, 1.5, 6, 22.0]];
    private const LAYERS = [[0.05, 0.24, 0.88, 0.47], [0.16, 0.34, 0.45, 0.89], [0.5, 0.26, 0.96, 0.28], [2.1, 0.16, 0.7, 0.71]];

    private const STEPS = 1 << 30;

    private \Random\Randomizer $random;

    /** @var array<string, list<array{array{float, float, float}, array{float, float, float}}>> true positions and angles by group */
    public readonly array $truth;

    public function __construct(public readonly float $east, public readonly float $north, public readonly float $ground)
    {
        $this->random = new \Random\Randomizer(new \Random\Engine\Mt19937(20310607));
        $truth = [];
        foreach (self::GROUPS as $name => [$from, $to, $y, $count, $turn]) {
            for ($k = 0; $k < $count; ++$k) {
                $x = $from + ($to - $from) * $k / ($count - 1);
                $truth[$name][] = [
                    [$east + $x + $this->normal(0.1), $north + $y + $this->normal(0.15), $ground + 1.85 + $this->normal(0.04)],
                    [93.0 + $this->normal(1.0), $turn + $this->normal(1.5), $this->normal(1.2)],
                ];
            }
        }
        $this->truth = $truth;
    }

    /** Box and Muller 1958. */
    public function normal(float $sd): float
    {
        $even = fn (): float => ($this->random->getInt(0, self::STEPS - 1) + 0.5) / self::STEPS;

        return $sd * sqrt(-2.0 * log($even())) * cos(2.0 * \M_PI * $even());
    }

    /** @return array{float, float, float} */
    public function place(float $x, float $y, float $z): array
    {
        return [$this->east + $x, $this->north + $y, $this->ground + $z];
    }

    /**
     * Where a ray from a place meets something, how far along it, and which face that is.
     *
     * @param array{float, float, float} $p from the corner of the yard
     * @param array{float, float, float} $d
     *
     * @return array{float, int} distance over the length of the direction; face 0 is the sky
     */
    public static function meets(array $p, array $d): array
    {
        [$px, $py, $pz] = $p;
        [$dx, $dy, $dz] = $d;
        [$best, $of] = $dz < -1e-9 ? [-$pz / $dz, 1] : [\INF, 0];
        if ($dy > 1e-9) {
            [$x0, $x1, $front, $high] = self::BAY;
            $t = ($front - $py) / $dy;
            $x = $px + $t * $dx;
            if ($t < $best && $x > $x0 && $x < $x1 && $pz + $t * $dz < $high) {
                return [$t, 2];
            }
            $t = (self::WALL - $py) / $dy;
            $x = $px + $t * $dx;
            $z = $pz + $t * $dz;
            [$a, $b, $back, $top] = self::DOOR;
            if ($x > $a && $x < $b && $z < $top) {
                $t = ($back - $py) / $dy;
                [$best, $of] = $t < $best ? [$t, 5] : [$best, $of];
            } elseif ($t < $best && $x > self::ENDS[0] && $x < self::ENDS[1] && $z < self::TOP) {
                [$best, $of] = [$t, 3];
            }
        }
        if (abs($dx) > 1e-9) {
            $t = (($dx > 0.0 ? self::BAY[0] : self::BAY[1]) - $px) / $dx;
            $y = $py + $t * $dy;
            $z = $pz + $t * $dz;
            if ($t > 1e-6 && $t < $best && $y > self::BAY[2] && $y < self::WALL && $z < self::BAY[3] && $z > 0.0) {
                [$best, $of] = [$t, 4];
            }
        }

        return [$best, $of];
    }

    /** How bright a place of a face is, 0 to 255. */
    private static function shade(int $face, float $x, float $y, float $z): float
    {
        [$u, $v] = 1 === $face ? [$x, $y] : (4 === $face ? [$y, $z] : [$x, $z]);
        $grey = 40.0 + 170.0 * Texture::at($u + 60.0 + 40.0 * $face, $v + 60.0, self::LAYERS);
        if (3 === $face || 2 === $face) {
            // Rows of windows: dark panes in bright frames.
            $a = fmod($u + 30.3, 2.4);
            $b = fmod($v + 30.0, 2.6);
            if ($a > 0.6 && $a < 1.5 && $b > 0.4 && $b < 1.6) {
                $isFrame = $a < 0.7 || $a > 1.4 || $b < 0.5 || $b > 1.5;
                $grey = $isFrame ? 205.0 + 0.2 * $grey : 25.0 + 0.35 * $grey;
            }
        }

        return 5 === $face ? 0.5 * $grey : $grey;
    }

    /**
     * @param array{float, float, float} $place
     *
     * @return ?array{float, float} the true pixel; null where the image does not show it, or something stands before it
     */
    public function pixel(string $group, int $image, array $place): ?array
    {
        [$p, $angles] = $this->truth[$group][$image] ?? throw new \OutOfBoundsException('There is no such image.');
        $r = Rotation::of(...$angles);
        $d = [$place[0] - $p[0], $place[1] - $p[1], $place[2] - $p[2]];
        $z = $r[2] * $d[0] + $r[5] * $d[1] + $r[8] * $d[2];
        [$t] = self::meets([$p[0] - $this->east, $p[1] - $this->north, $p[2] - $this->ground], $d);
        if ($z > -0.1 || abs($t - 1.0) > 0.01) {
            return null;
        }
        [$x, $y] = Lens::pixel(
            self::CAMERA, -($r[0] * $d[0] + $r[3] * $d[1] + $r[6] * $d[2]) / $z, ($r[1] * $d[0] + $r[4] * $d[1] + $r[7] * $d[2]) / $z,
        );

        return $x > 12.0 && $y > 12.0 && $x < self::WIDTH - 12.0 && $y < self::HEIGHT - 12.0 ? [$x, $y] : null;
    }

    /** @return list<int> brightness of each pixel, row by row from the top left, with the noise of the sensor */
    public function render(string $group, int $image): array
    {
        [$p, $angles] = $this->truth[$group][$image] ?? throw new \OutOfBoundsException('There is no such image.');
        $r = Rotation::of(...$angles);
        [$x0, $y0, $z0] = $from = [$p[0] - $this->east, $p[1] - $this->north, $p[2] - $this->ground];
        $noise = 4321 + 7919 * $image + 104729 * \strlen($group);
        $pixels = [];
        for ($row = 0; $row < self::HEIGHT; ++$row) {
            for ($column = 0; $column < self::WIDTH; ++$column) {
                [$u, $v] = self::near($column + 0.5, $row + 0.5);
                $dx = $r[0] * $u - $r[1] * $v - $r[2];
                $dy = $r[3] * $u - $r[4] * $v - $r[5];
                $dz = $r[6] * $u - $r[7] * $v - $r[8];
                [$t, $face] = self::meets($from, [$dx, $dy, $dz]);
                $grey = 0 === $face || $t > 60.0 ? 228.0 : self::shade($face, $x0 + $t * $dx, $y0 + $t * $dy, $z0 + $t * $dz);
                $noise = ($noise * 1103515245 + 12345) & 0x7FFFFFFF;
                $pixels[] = max(0, min(255, (int) round($grey + 4.0 * ($noise / 0x7FFFFFFF - 0.5))));
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
        for ($k = 0; $k < 5; ++$k) {
            $r2 = $x * $x + $y * $y;
            $radial = 1.0 + $r2 * ($k1 + $r2 * $k2);
            [$x, $y] = [$x0 / $radial, $y0 / $radial];
        }

        return [$x, $y];
    }
}
