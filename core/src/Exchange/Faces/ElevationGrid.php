<?php

declare(strict_types=1);

namespace Mensura\Exchange\Faces;

use Mensura\Fault\UnusableInput;
use Mensura\Reference\Grid\TiffBlocks;
use Mensura\Reference\Grid\UnreadableGrid;

/**
 * Heights of a GeoTIFF in a projected system (OGC GeoTIFF 1.1) as triangles between the centres of its cells: two to a square, parted
 * along the diagonal whose ends differ less in height; none where a corner has no value.
 */
final class ElevationGrid
{
    private const MOST = 4_000_000;
    private const GEOGRAPHIC = 2;

    /**
     * @return array{list<float>, list<float>, list<float>, list<int>} easting, northing, height, corners of triangles
     *
     * @throws UnusableInput
     */
    public static function read(string $path, string $name): array
    {
        $file = fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read');
        $part = static function (int $from, int $length) use ($file): string {
            fseek($file, $from);

            return $length > 0 ? (string) fread($file, $length) : '';
        };
        try {
            return self::triangles(new TiffBlocks($name, $part, (int) filesize($path)), $name);
        } catch (UnreadableGrid $e) {
            throw new UnusableInput($name, trim((string) preg_replace('/^'.preg_quote($name, '/').':? ?/', '', $e->getMessage())));
        } finally {
            fclose($file);
        }
    }

    /** @return array{list<float>, list<float>, list<float>, list<int>} */
    private static function triangles(TiffBlocks $tiff, string $name): array
    {
        if (1 !== (int) $tiff->one(277, 1)) {
            throw new UnusableInput($name, 'is a picture of several bands; heights have one');
        }
        $scale = $tiff->all(33550);
        $tie = $tiff->all(33922);
        if (null === $scale || null === $tie || \count($tie) < 6) {
            throw new UnusableInput($name, 'is not georeferenced by a pixel scale and a tie point');
        }
        $half = 0.5;
        foreach (\array_slice(array_chunk($tiff->all(34735) ?? [], 4), 1) as $key) {
            $value = (int) ($key[3] ?? 0);
            if (1024 === (int) $key[0] && self::GEOGRAPHIC === $value) {
                throw new UnusableInput($name, 'is in latitude and longitude; bring it to a projected system first');
            }
            $half = 1025 === (int) $key[0] && 2 === $value ? 0.0 : $half;
        }
        if ($tiff->rows * $tiff->columns > self::MOST) {
            $words = 'holds %d cells; up to %d are taken as a design: cut or coarsen it first';
            throw new UnusableInput($name, \sprintf($words, $tiff->rows * $tiff->columns, self::MOST));
        }
        $west = (float) $tie[3] + ($half - (float) $tie[0]) * (float) $scale[0];
        $north = (float) $tie[4] - ($half - (float) $tie[1]) * (float) $scale[1];
        $x = $y = $z = $node = [];
        $columns = $tiff->columns;
        foreach ($tiff->rows() as [$row, $first, $values]) {
            foreach ($values as $k => $value) {
                $isEmpty = null !== $tiff->empty && ($value === $tiff->empty || abs($value - $tiff->empty) < 1e-6 * abs($tiff->empty));
                if (!$isEmpty && is_finite((float) $value)) {
                    $node[$row * $columns + $first + $k] = \count($x);
                    $x[] = $west + ($first + $k) * (float) $scale[0];
                    $y[] = $north - $row * (float) $scale[1];
                    $z[] = (float) $value;
                }
            }
        }
        $triangles = [];
        for ($r = 0; $r + 1 < $tiff->rows; ++$r) {
            for ($c = 0; $c + 1 < $columns; ++$c) {
                $i = $r * $columns + $c;
                [$a, $b] = [$node[$i] ?? null, $node[$i + 1] ?? null]; // north-west, north-east
                [$d, $e] = [$node[$i + $columns] ?? null, $node[$i + $columns + 1] ?? null]; // south-west, south-east
                if (null === $a || null === $b || null === $d || null === $e) {
                    continue;
                }
                if (abs($z[$a] - $z[$e]) < abs($z[$b] - $z[$d])) {
                    array_push($triangles, $a, $d, $e, $a, $e, $b);
                } else {
                    array_push($triangles, $a, $d, $b, $b, $d, $e);
                }
            }
        }

        return [] !== $triangles ? [$x, $y, $z, $triangles] : throw new UnusableInput($name, 'has no square of four values');
    }
}
