<?php

declare(strict_types=1);

namespace Mensura\Flight;

/**
 * The ground as seen from straight above: every pixel takes its colour from the image that looks straightest down on it, where the
 * elevation model says it lies (Kraus, Photogrammetry, section 7.2). What stands over the model leans. Rows run south.
 */
final class Orthoimage
{
    /**
     * @param \Closure(int): \GdImage $open     an image as it was taken, opened one after the other
     * @param float                   $pixel    of the result, metres
     * @param ?\Closure(float): void  $progress
     *
     * @return array{int, int, string} columns, rows, and red, green, blue, and 255 where there is an image, by row
     */
    public static function of(
        OrientedImages $images, ElevationModel $model, \Closure $open, float $pixel, ?\Closure $progress = null,
    ): array {
        $columns = (int) floor($model->columns * $model->cell / $pixel + 1e-9);
        $rows = (int) floor($model->rows * $model->cell / $pixel + 1e-9);
        $of = [];
        for ($row = 0; $row < $rows; ++$row) {
            $n = $model->north - ($row + 0.5) * $pixel;
            for ($column = 0; $column < $columns; ++$column) {
                $e = $model->west + ($column + 0.5) * $pixel;
                $h = $model->at($e, $n);
                $i = null === $h ? null : $images->showing($e, $n, $h, 1, 1.0)[0] ?? null;
                if (null !== $i) {
                    $of[$i][] = $row * $columns + $column;
                }
            }
        }
        $rgba = str_repeat("\0", 4 * $columns * $rows);
        $done = 0;
        foreach ($of as $i => $cells) {
            $image = $open($i);
            foreach ($cells as $k) {
                $e = $model->west + ($k % $columns + 0.5) * $pixel;
                $n = $model->north - (intdiv($k, $columns) + 0.5) * $pixel;
                $at = $images->pixel($i, $e, $n, $model->at($e, $n) ?? 0.0, 1.0);
                if (null !== $at) {
                    self::colour($image, $at[0] - 0.5, $at[1] - 0.5, $rgba, 4 * $k);
                }
            }
            if (null !== $progress) {
                $progress(++$done / \count($of));
            }
        }

        return [$columns, $rows, $rgba];
    }

    /** Between the middles of four pixels. */
    private static function colour(\GdImage $image, float $x, float $y, string &$rgba, int $at): void
    {
        $i = max(0, min(imagesx($image) - 2, (int) $x));
        $j = max(0, min(imagesy($image) - 2, (int) $y));
        [$u, $v] = [$x - $i, $y - $j];
        $a = (int) imagecolorat($image, $i, $j);
        $b = (int) imagecolorat($image, $i + 1, $j);
        $c = (int) imagecolorat($image, $i, $j + 1);
        $d = (int) imagecolorat($image, $i + 1, $j + 1);
        foreach ([16, 8, 0] as $k => $shift) {
            [$p, $q, $r, $s] = [($a >> $shift) & 255, ($b >> $shift) & 255, ($c >> $shift) & 255, ($d >> $shift) & 255];
            $value = $p + $u * ($q - $p) + $v * ($r - $p + $u * ($p - $q - $r + $s));
            $rgba[$at + $k] = \chr(max(0, min(255, (int) round($value))));
        }
        $rgba[$at + 3] = "\xFF";
    }
}
