<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Fault\UnusableInput;
use Mensura\Reference\Grid\TiffBlocks;
use Mensura\Reference\Grid\UnreadableGrid;

/** GeoTIFF: cells with a value, their outer edges, least and greatest value. */
final class TiffLook
{
    /** @param ?\Closure(array{float, float, float}): void $each is given the middle and the value of every cell with one */
    public static function read(Looked $l, string $path, Systems $systems, string $name, ?\Closure $each = null): void
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
            $half = $isPoint ? 0.5 : 0.0;
            $place = self::placing($scale, $tie, $matrix);
            $cell = null === $each || null === $place ? null
                : static fn (int $row, int $column, float $value) => $each([...$place($column + 0.5 - $half, $row + 0.5 - $half), $value]);
            [$least, $greatest] = self::values($l, $tiff, $cell);
            foreach ([[0.0, 0.0], [$tiff->columns, 0.0], [0.0, $tiff->rows], [$tiff->columns, $tiff->rows]] as [$c, $r]) {
                [$c, $r] = [$c - $half, $r - $half];
                if (null === $place) {
                    $l->warn('it is not georeferenced');
                    break;
                }
                [$x, $y] = $place($c, $r);
                $l->reach($x, $y, $least);
                $l->reach($x, $y, $greatest);
            }
        } catch (UnreadableGrid $e) {
            throw new UnusableInput($name, trim((string) preg_replace('/^'.preg_quote($name, '/').':? ?/', '', $e->getMessage())));
        } finally {
            fclose($file);
        }
    }

    /**
     * @param ?list<int|float> $scale
     * @param ?list<int|float> $tie
     * @param ?list<int|float> $matrix
     *
     * @return ?\Closure(float, float): array{float, float} place of a column and a row; null where it is not georeferenced
     */
    private static function placing(?array $scale, ?array $tie, ?array $matrix): ?\Closure
    {
        if (null !== $scale && null !== $tie && \count($tie) > 5) {
            return static fn (float $c, float $r): array => [
                $tie[3] + ($c - $tie[0]) * $scale[0], $tie[4] - ($r - $tie[1]) * $scale[1],
            ];
        }

        return null === $matrix || \count($matrix) < 8 ? null : static fn (float $c, float $r): array => [
            $matrix[0] * $c + $matrix[1] * $r + $matrix[3], $matrix[4] * $c + $matrix[5] * $r + $matrix[7],
        ];
    }

    /**
     * @param ?\Closure(int, int, float): void $cell
     *
     * @return array{?float, ?float}
     */
    private static function values(Looked $l, TiffBlocks $tiff, ?\Closure $cell): array
    {
        if ((int) $tiff->one(277, 1) > 1) {
            // A picture: every pixel is a cell, its colours are no heights.
            $l->count(Looked::POINT, $tiff->rows * $tiff->columns);

            return [null, null];
        }
        $least = $greatest = null;
        $count = 0;
        foreach ($tiff->rows() as [$row, $column, $values]) {
            foreach ($values as $k => $value) {
                $isEmpty = null !== $tiff->empty && ($value === $tiff->empty || abs($value - $tiff->empty) < 1e-6 * abs($tiff->empty));
                if ($isEmpty || is_nan($value)) {
                    continue;
                }
                ++$count;
                if (null !== $cell) {
                    $cell($row, $column + $k, $value);
                }
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
