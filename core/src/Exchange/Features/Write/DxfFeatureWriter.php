<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Dxf\DxfWriter;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;

/** ASCII DXF of release AC1015: points as placed blocks whose attributes say what is said of them, lines in space, faces. */
final class DxfFeatureWriter implements FeatureWriter
{
    private const UNITS = ['metre' => 6, 'foot' => 2, 'US survey foot' => 21, 'millimetre' => 4];
    private const METRES = 8;
    private const DEGREES = 13;

    public function write(FeatureSet $set, string $path): array
    {
        $lost = new Lost();
        $isGeographic = $set->isGeographic();
        $dxf = new DxfWriter(self::UNITS[$set->unit ?? ''] ?? 0, $isGeographic ? self::DEGREES : self::METRES);
        $properties = $set->properties();
        $naming = $set->naming();
        $tags = Plain::different($properties, static fn (string $n): string => (string) preg_replace('/[\s\x00-\x1F]+/', '_', $n), 120);
        foreach ($tags as $from => $to) {
            if ((string) $from !== $to) {
                $lost->say(\sprintf('the property name %s, written as %s', $from, $to));
            }
        }
        foreach ($set->layers() as $layer) {
            if (DxfWriter::layerName($layer) !== $layer) {
                $lost->say(\sprintf('the layer name %s, written as %s', $layer, DxfWriter::layerName($layer)));
            }
        }
        $named = $described = 0;
        foreach ($set->features as $f) {
            if (Feature::POINT !== $f->kind) {
                $rest = array_filter($f->properties, static fn (mixed $v): bool => null !== $v);
                $named += null !== $naming && isset($rest[$naming]) ? 1 : 0;
                $described += [] === $rest ? 0 : 1;
            }
            foreach ($f->parts as $rings) {
                self::part($dxf, $f, $rings, $tags, $lost);
            }
            if (\count($f->parts) > 1) {
                $lost->count('features of several parts, written one by one');
            }
        }
        if ($described > 0) {
            $lost->say(\sprintf('what is said of %d lines, polygons and faces%s', $described, $named > 0 ? ', their names among it' : ''));
        }
        if (null !== $set->crs) {
            $lost->say("the coordinate system $set->crs");
        }
        $dxf->save($path);

        return $lost->all();
    }

    /**
     * @param list<list<array{float, float, ?float}>> $rings
     * @param array<string, string>                   $tags
     */
    private static function part(DxfWriter $dxf, Feature $f, array $rings, array $tags, Lost $lost): void
    {
        $whole = static function (array $ring) use ($lost): array {
            $places = [];
            foreach ($ring as [$x, $y, $h]) {
                if (null === $h) {
                    $lost->count('missing heights, written as 0');
                }
                $places[] = [$x, $y, $h ?? 0.0];
            }

            return $places;
        };
        if (Feature::POINT === $f->kind) {
            $attributes = [];
            foreach ($tags as $name => $tag) {
                $value = $f->properties[$name] ?? null;
                if (null !== $value) {
                    $attributes[$tag] = Plain::text($value);
                }
            }
            [[$x, $y, $h]] = $whole($rings[0]);
            [] === $tags ? $dxf->point($f->layer, $x, $y, $h) : $dxf->mark($f->layer, $x, $y, $h, $attributes);

            return;
        }
        if (Feature::FACE === $f->kind && \count($rings[0]) < 6) {
            $dxf->face($f->layer, \array_slice($whole($rings[0]), 0, -1));

            return;
        }
        if (Feature::LINE !== $f->kind && \count($rings) > 1) {
            $lost->count('holes of polygons, written as polygons', \count($rings) - 1);
        }
        foreach ($rings as $ring) {
            $isClosed = Feature::LINE !== $f->kind;
            $dxf->polyline3d($f->layer, \array_slice($whole($ring), 0, $isClosed ? -1 : null), $isClosed);
        }
    }
}
