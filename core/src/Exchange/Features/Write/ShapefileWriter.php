<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\Ring;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\Text\Wkt1Writer;
use Mensura\Reference\Text\WktWriter;

/**
 * Shapefiles (ESRI technical description, July 1998): .shp, .shx, .dbf in UTF-8 with .cpg, and .prj always. One kind of geometry to a
 * file: of several the one there is most of.
 */
final class ShapefileWriter implements FeatureWriter
{
    private const TYPES = [Feature::POINT => 1, Feature::LINE => 3, Feature::POLYGON => 5, Feature::FACE => 5];
    private const MULTIPOINT = 8;

    public function write(FeatureSet $set, string $path): array
    {
        $lost = new Lost();
        $kind = self::kind($set);
        $features = $lost->only($set, Feature::POLYGON === $kind ? [Feature::POLYGON, Feature::FACE] : [$kind], 'a shapefile of one kind');
        $hasZ = [] !== array_filter($features, static fn (Feature $f): bool => $f->hasHeights());
        $isMulti = Feature::POINT === $kind && [] !== array_filter($features, static fn (Feature $f): bool => \count($f->parts) > 1);
        $type = ($isMulti ? self::MULTIPOINT : self::TYPES[$kind]) + ($hasZ ? 10 : 0);
        $box = [\INF, \INF, -\INF, -\INF, \INF, -\INF];
        $records = $index = '';
        $at = 50;
        foreach ($features as $i => $f) {
            $body = pack('V', $type).self::body($f, $type, $hasZ, $box, $lost);
            $words = intdiv(\strlen($body), 2);
            $records .= pack('NN', $i + 1, $words).$body;
            $index .= pack('NN', $at, $words);
            $at += 4 + $words;
        }
        $bounds = is_finite($box[0]) ? $box : [0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        $bounds = is_finite($bounds[4]) ? $bounds : [$bounds[0], $bounds[1], $bounds[2], $bounds[3], 0.0, 0.0];
        $head = static fn (int $bytes): string => pack('N7', 9994, 0, 0, 0, 0, 0, intdiv($bytes, 2)).pack('VV', 1000, $type)
            .pack('e8', $bounds[0], $bounds[1], $bounds[2], $bounds[3], $bounds[4], $bounds[5], 0.0, 0.0);
        $base = (string) preg_replace('/\.[^.\/]*$/', '', $path);
        file_put_contents($path, $head(100 + \strlen($records)).$records);
        file_put_contents("$base.shx", $head(100 + \strlen($index)).$index);
        (new DbfWriter())->write($features, self::columns($set, $features), "$base.dbf", $set->dated('Y-m-d'), $lost);
        file_put_contents("$base.cpg", 'UTF-8');
        file_put_contents("$base.prj", self::system($set, $lost));
        if (\count($set->layers()) > 1) {
            $lost->say('layers');
        }

        return $lost->all();
    }

    private static function kind(FeatureSet $set): string
    {
        $counts = [Feature::POINT => 0, Feature::LINE => 0, Feature::POLYGON => 0];
        foreach ($set->features as $f) {
            ++$counts[Feature::FACE === $f->kind ? Feature::POLYGON : $f->kind];
        }
        arsort($counts);

        return (string) array_key_first($counts);
    }

    /**
     * @param list<Feature> $features
     *
     * @return list<string>
     */
    private static function columns(FeatureSet $set, array $features): array
    {
        $of = new FeatureSet();
        $of->features = $features;

        return $of->properties();
    }

    /** @param array{float, float, float, float, float, float} $box */
    private static function body(Feature $f, int $type, bool $hasZ, array &$box, Lost $lost): string
    {
        $rings = [];
        foreach ($f->parts as $part) {
            foreach ($part as $k => $ring) {
                // Outer rings run clockwise, holes the other way.
                $turn = \in_array($f->kind, [Feature::POLYGON, Feature::FACE], true) && (Ring::twiceArea($ring) > 0.0) === (0 === $k);
                $rings[] = $turn ? array_reverse($ring) : $ring;
            }
        }
        $xy = $z = '';
        $own = [\INF, \INF, -\INF, -\INF, \INF, -\INF];
        $count = 0;
        foreach ($rings as $ring) {
            foreach ($ring as [$x, $y, $h]) {
                if ($hasZ && null === $h) {
                    $lost->count('missing heights, written as 0');
                }
                $xy .= pack('e2', $x, $y);
                $z .= pack('e', $h ?? 0.0);
                $own = [
                    min($own[0], $x), min($own[1], $y), max($own[2], $x), max($own[3], $y), min($own[4], $h ?? 0.0),
                    max($own[5], $h ?? 0.0),
                ];
                ++$count;
            }
        }
        $box = [
            min($box[0], $own[0]), min($box[1], $own[1]), max($box[2], $own[2]), max($box[3], $own[3]), min($box[4], $own[4]),
            max($box[5], $own[5]),
        ];
        if (1 === $type % 10) {
            return $xy.($hasZ ? $z.pack('e', 0.0) : '');
        }
        $heights = $hasZ ? pack('e2', $own[4], $own[5]).$z : '';
        if (self::MULTIPOINT === $type % 10) {
            return pack('e4', $own[0], $own[1], $own[2], $own[3]).pack('V', $count).$xy.$heights;
        }
        $starts = [];
        $sum = 0;
        foreach ($rings as $ring) {
            $starts[] = $sum;
            $sum += \count($ring);
        }

        return pack('e4', $own[0], $own[1], $own[2], $own[3]).pack('VV', \count($rings), $count).pack('V*', ...$starts).$xy.$heights;
    }

    private static function system(FeatureSet $set, Lost $lost): string
    {
        if (null === $set->crs) {
            $metre = ['foot' => '0.3048', 'US survey foot' => '0.30480060960121924', 'millimetre' => '0.001'][$set->unit ?? ''] ?? '1';
            $lost->say('its coordinate system is not known; the .prj says a local one');

            return 'LOCAL_CS["local",UNIT["'.($set->unit ?? 'metre')."\",$metre]]";
        }
        $system = Registry::open()->system($set->crs);

        return Wkt1Writer::write($system->horizontal) ?? WktWriter::write($system);
    }
}
