<?php

declare(strict_types=1);

namespace Mensura\Flight;

use Mensura\Cloud\PointBlock;
use Mensura\Image\Rotation;
use Mensura\Matching\GreyImage;

/**
 * Points of what oriented images show, with their colours: heights of a grid, on level ground for a flight, and for a group of
 * images that look about on the plane that faces them. Metres.
 */
final class DensePoints
{
    private function __construct(public readonly PointBlock $points, public readonly float $cell, public readonly float $completeness)
    {
    }

    /**
     * @param array<int, GreyImage>    $grey
     * @param list<float>              $places   tie points, e, n, h one after the other
     * @param bool                     $isFacing whether the grid lies on the plane that faces the images, not level
     * @param float                    $cell     side of the grid's cells
     * @param int                      $most     cells at most; a side that makes more grows
     * @param \Closure(int): \GdImage  $open
     * @param ?\Closure(float): void   $progress
     */
    public static function of(
        OrientedImages $images, array $grey, array $places, bool $isFacing, float $cell, int $most, \Closure $open,
        ?\Closure $progress = null,
    ): self {
        $from = $images->positions[array_key_first($images->positions) ?? 0];
        $turn = $isFacing ? self::facing($images) : [1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0];
        $to = static fn (array $p): array => Rotation::ground($turn, [$p[0] - $from[0], $p[1] - $from[1], $p[2] - $from[2]]);
        $turned = new OrientedImages(
            $images->camera, array_map($to, $images->positions),
            array_map(static fn (array $r): array => Rotation::product($turn, $r), $images->rotations), $images->width, $images->height,
        );
        [$e, $n, $h] = [[], [], []];
        foreach (array_chunk($places, 3) as $p) {
            [$e[], $n[], $h[]] = $to($p);
        }
        $box = [...self::inner($e), ...self::inner($n)];
        $between = self::inner($h);
        $room = 0.08 * ($between[1] - $between[0]) + 2.0 * $cell;
        $area = ($box[1] - $box[0]) * ($box[3] - $box[2]);
        $cell = max($cell, sqrt($area / $most));
        $model = ElevationModel::of(
            $turned, $grey, [$box[0], $box[2], $box[1], $box[3]], [$between[0] - $room, $between[1] + $room], $cell, $progress,
        );
        $points = new PointBlock();
        $of = [];
        foreach ($model->h as $k => $height) {
            if (null === $height) {
                continue;
            }
            $at = [
                $model->west + ($k % $model->columns + 0.5) * $cell, $model->north - (intdiv($k, $model->columns) + 0.5) * $cell, $height,
            ];
            $image = $turned->showing($at[0], $at[1], $at[2], 1, 1.0)[0] ?? null;
            if (null === $image) {
                continue;
            }
            $of[$image][\count($points->x)] = $turned->pixel($image, ...$at) ?? [0.0, 0.0];
            $points->x[] = $from[0] + $turn[0] * $at[0] + $turn[3] * $at[1] + $turn[6] * $at[2];
            $points->y[] = $from[1] + $turn[1] * $at[0] + $turn[4] * $at[1] + $turn[7] * $at[2];
            $points->z[] = $from[2] + $turn[2] * $at[0] + $turn[5] * $at[1] + $turn[8] * $at[2];
            $points->classes[] = 0;
        }
        $looks = array_fill(0, $points->count(), '');
        foreach ($of as $image => $pixels) {
            $gd = $open($image);
            foreach ($pixels as $k => [$x, $y]) {
                $c = (int) imagecolorat($gd, min($images->width - 1, (int) $x), min($images->height - 1, (int) $y));
                $looks[$k] = "\0\0".\chr(($c >> 16) & 255).\chr(($c >> 8) & 255).\chr($c & 255);
            }
        }
        $points->looks = array_values($looks);

        return new self($points, $cell, $model->completeness());
    }

    /**
     * The axes of a plane that faces the images: along, up, towards them; along is level.
     *
     * @return list<float>
     */
    private static function facing(OrientedImages $images): array
    {
        $w = [0.0, 0.0, 0.0];
        foreach ($images->rotations as $m) {
            foreach ([2, 5, 8] as $k => $i) {
                $w[$k] += $m[$i];
            }
        }
        $l = sqrt($w[0] ** 2 + $w[1] ** 2 + $w[2] ** 2);
        $w = [$w[0] / $l, $w[1] / $l, $w[2] / $l];
        $level = hypot($w[0], $w[1]);
        // Looking straight down, along is east.
        $u = $level < 1e-6 ? [1.0, 0.0, 0.0] : [-$w[1] / $level, $w[0] / $level, 0.0];
        $v = [$w[1] * $u[2] - $w[2] * $u[1], $w[2] * $u[0] - $w[0] * $u[2], $w[0] * $u[1] - $w[1] * $u[0]];

        return [...$u, ...$v, ...$w];
    }

    /**
     * What all but the outermost hundredth lie between.
     *
     * @param list<float> $v
     *
     * @return array{float, float}
     */
    private static function inner(array $v): array
    {
        sort($v);
        $last = \count($v) - 1;

        return [$v[(int) (0.01 * $last)], $v[(int) ceil(0.99 * $last)]];
    }
}
