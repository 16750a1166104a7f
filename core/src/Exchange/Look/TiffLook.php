<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Fault\UnusableInput;
use Mensura\Reference\Grid\TiffBlocks;
use Mensura\Reference\Grid\UnreadableGrid;

/** GeoTIFF: cells with a value, their outer edges, least and greatest value. */
final class TiffLook
{
    public static function read(Looked $l, string $path, Systems $systems, string $name): void
    {
        $file = fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read');
        $part = static function (int $from, int $length) use ($file): string {
            fseek($file, $from);

            return $length > 0 ? (string) fread($file, $length) : '';
        };
        try {
            $tiff = new TiffBlocks($name, $part, (int) filesize($path));
            $scale = $tiff->all(33550);
            $tie = $tiff->all(33922);
            $matrix = $tiff->all(34264);
            $keys = array_map(intval(...), $tiff->all(34735) ?? []);
            if ([] === $keys && null === $scale && null === $matrix) {
                $l->kind = 'unknown';

                return;
            }
            $isPoint = false;
            foreach (\array_slice(array_chunk($keys, 4), 1) as $key) {
                $isPoint = $isPoint || 1025 === $key[0] && 2 === ($key[3] ?? 0);
            }
            TiffKeys::system($l, $keys, $systems);
            [$least, $greatest] = self::values($l, $tiff);
            $half = $isPoint ? 0.5 : 0.0;
            foreach ([[0.0, 0.0], [$tiff->columns, 0.0], [0.0, $tiff->rows], [$tiff->columns, $tiff->rows]] as [$c, $r]) {
                [$c, $r] = [$c - $half, $r - $half];
                if (null !== $scale && null !== $tie && \count($tie) > 5) {
                    [$x, $y] = [$tie[3] + ($c - $tie[0]) * $scale[0], $tie[4] - ($r - $tie[1]) * $scale[1]];
                } elseif (null !== $matrix && \count($matrix) > 7) {
                    [$x, $y] = [$matrix[0] * $c + $matrix[1] * $r + $matrix[3], $matrix[4] * $c + $matrix[5] * $r + $matrix[7]];
                } else {
                    $l->warn('it is not georeferenced');
                    break;
                }
                $l->reach((float) $x, (float) $y, $least);
                $l->reach((float) $x, (float) $y, $greatest);
            }
        } catch (UnreadableGrid $e) {
            throw new UnusableInput($name, trim((string) preg_replace('/^'.preg_quote($name, '/').':? ?/', '', $e->getMessage())));
        } finally {
            fclose($file);
        }
    }

    /** @return array{?float, ?float} */
    private static function values(Looked $l, TiffBlocks $tiff): array
    {
        if ((int) $tiff->one(277, 1) > 1) {
            // A picture: every pixel is a cell, its colours are no heights.
            $l->count(Looked::POINT, $tiff->rows * $tiff->columns);

            return [null, null];
        }
        $least = $greatest = null;
        $count = 0;
        foreach ($tiff->rows() as [, , $values]) {
            foreach ($values as $value) {
                $isEmpty = null !== $tiff->empty && ($value === $tiff->empty || abs($value - $tiff->empty) < 1e-6 * abs($tiff->empty));
                if ($isEmpty || is_nan($value)) {
                    continue;
                }
                ++$count;
                if (null === $least || $value < $least) {
                    $least = $value;
                }
                if (null === $greatest || $value > $greatest) {
                    $greatest = $value;
                }
            }
        }
        $l->count(Looked::POINT, $count);

        return [$least, $greatest];
    }
}
