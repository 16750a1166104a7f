<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;

/** A table of points (RFC 4180, UTF-8): what names them, easting northing height (or longitude, latitude), then what is said of them. */
final class CsvWriter implements FeatureWriter
{
    public function write(FeatureSet $set, string $path): array
    {
        $lost = new Lost();
        $points = $lost->only($set, [Feature::POINT], 'a table');
        $places = $set->isGeographic() ? ['lon', 'lat'] : ['e', 'n'];
        if ($set->hasHeights()) {
            $places[] = 'h';
        }
        $naming = $set->naming();
        $others = array_values(array_filter($set->properties(), static fn (string $p): bool => $p !== $naming));
        $isLayered = \count($set->layers()) > 1 && !\in_array('layer', $others, true);
        $named = Plain::different($others, static fn (string $n): string => trim((string) preg_replace('/\s+/', ' ', $n)), 200, [
            ...$places, 'easting', 'northing', 'x', 'y', 'z', 'height', 'elevation', 'latitude', 'longitude', (string) ($naming ?? 'name'),
        ]);
        foreach ($named as $from => $to) {
            if ((string) $from !== $to) {
                $lost->say(\sprintf('the property name %s, written as %s', $from, $to));
            }
        }
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        $head = [$naming ?? 'name', ...$places, ...array_values($named)];
        fwrite($file, self::row($isLayered ? [...$head, 'layer'] : $head));
        $without = 0;
        foreach ($points as $f) {
            foreach ($f->parts as [[$place]]) {
                $row = [self::cell($f->properties[$naming ?? ''] ?? null), Plain::number($place[0]), Plain::number($place[1])];
                if (isset($places[2])) {
                    $without += null === $place[2] ? 1 : 0;
                    $row[] = null === $place[2] ? '' : Plain::number($place[2]);
                }
                foreach ($others as $name) {
                    $row[] = self::cell($f->properties[$name] ?? null);
                }
                fwrite($file, self::row($isLayered ? [...$row, $f->layer] : $row));
            }
            if (\count($f->parts) > 1) {
                $lost->count('points of several places, written one by one');
            }
        }
        fclose($file);
        if (null !== $set->crs && 'EPSG:4326' !== $set->crs) {
            $lost->say("the coordinate system $set->crs");
        }

        return $lost->all();
    }

    /**
     * What begins as remarks do, or with a blank, is quoted too.
     *
     * @param list<string> $cells
     */
    private static function row(array $cells): string
    {
        $isPlain = static fn (string $c): bool => 1 !== preg_match('~[",;\r\n]|^[#/\s]|\s$~', $c);

        return implode(',', array_map(
            static fn (string $c): string => $isPlain($c) ? $c : '"'.str_replace('"', '""', $c).'"', $cells,
        ))."\n";
    }

    /** A row is a line. */
    private static function cell(string|int|float|bool|null $value): string
    {
        return (string) preg_replace('/[\r\n]+/', ' ', Plain::text($value));
    }
}
