<?php

declare(strict_types=1);

namespace Mensura\Exchange\Package;

use Mensura\Exchange\CoordinateCsv\CoordinateCsv;
use Mensura\Exchange\Dxf\DxfWriter;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\Write\GeoJsonWriter;
use Mensura\Exchange\Features\Write\Plain;
use Mensura\Exchange\LandXml\LandXmlDesign;
use Mensura\Fault\UnusableInput;

/**
 * A package as one zip of open files, "mensura-package/1" (docs/formats.md): points.csv, lines.dxf, design.xml with surfaces and
 * alignments, background.geojson, system.wkt2, site.json, geoid.gtx, and manifest.json, which says what is in, from which versions,
 * with the SHA-256 of each file.
 */
final class PackageWriter
{
    public const FORMAT = 'mensura-package/1';
    public const MANIFEST = 'manifest.json';
    public const POINTS = 'points.csv';
    public const LINES = 'lines.dxf';
    public const DESIGN = 'design.xml';
    public const BACKGROUND = 'background.geojson';
    public const SYSTEM = 'system.wkt2';
    public const SITE = 'site.json';
    public const GEOID = 'geoid.gtx';

    /** The first second a zip can say, 1980-01-01: the same parts give the same bytes whenever they are written. */
    private const NO_TIME = 315532800;

    private const FLAGS = \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_INVALID_UTF8_SUBSTITUTE
        | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;

    /**
     * @return list<string> what the files cannot hold, in words
     *
     * @throws UnusableInput where there is nothing to write
     */
    public static function write(Package $p, string $path): array
    {
        $isEmpty = [] === $p->points && [] === $p->surfaces && [] === $p->lines && [] === $p->alignments;
        if ($isEmpty) {
            throw new UnusableInput('', 'nothing is in this package: choose points, lines, a surface or an alignment for it');
        }
        $folder = $path.'-parts';
        if (!@mkdir($folder)) {
            throw new \RuntimeException($folder.' cannot be made.');
        }
        try {
            $names = Plain::different(array_keys($p->layers), DxfWriter::layerName(...), 60);
            $items = self::files($p, $folder, $names);
            $lost = [];
            foreach ($names as $name => $written) {
                if ((string) $name !== $written) {
                    $lost[] = \sprintf('the layer name "%s" in the drawing, where it is %s', $name, $written);
                }
            }
            $manifest = self::manifest($p, $items, $names, $lost, $folder);
            file_put_contents("$folder/".self::MANIFEST, json_encode($manifest, self::FLAGS)."\n");
            self::zip($folder, $path);
        } finally {
            array_map(unlink(...), glob("$folder/*") ?: []);
            rmdir($folder);
        }

        return $lost;
    }

    /**
     * @param array<string, string> $names of layers as the drawing holds them
     *
     * @return list<array<string, mixed>> what is in which file
     */
    private static function files(Package $p, string $folder, array $names): array
    {
        $items = [];
        foreach ($p->surfaces as $s) {
            $count = intdiv(\count($s['triangles']), 3);
            $items[] = ['kind' => 'surface', 'name' => $s['name'], 'count' => $count, 'file' => self::DESIGN, 'from' => $s['from']];
        }
        foreach ($p->alignments as $a) {
            $items[] = [
                'kind' => 'alignment', 'name' => $a->name, 'count' => \count($a->elements), 'length' => $a->length, 'file' => self::DESIGN,
                'from' => $p->from['alignment '.$a->name] ?? '',
            ];
        }
        if ([] !== $p->surfaces || [] !== $p->alignments) {
            $xml = new LandXmlDesign("$folder/".self::DESIGN, $p->project, new \DateTimeImmutable($p->made));
            $xml->system($p->systemName, $p->systemCode);
            $xml->alignments($p->alignments);
            $xml->surfaces(array_map(
                static fn (array $s): array => [$s['name'], $s['x'], $s['y'], $s['z'], $s['triangles']], $p->surfaces,
            ));
            $xml->close();
        }
        if ([] !== $p->lines) {
            $dxf = new DxfWriter();
            foreach ($p->layers as $layer => $colour) {
                $dxf->layer($names[$layer], LayerColour::index($colour));
            }
            foreach ($p->lines as $line) {
                $dxf->polyline3d($names[$line['layer']], $line['vertices']);
            }
            $dxf->save("$folder/".self::LINES);
            foreach (array_count_values(array_column($p->lines, 'layer')) as $layer => $count) {
                $from = $p->from['layer '.$layer] ?? '';
                $items[] = ['kind' => 'lines', 'name' => (string) $layer, 'count' => $count, 'file' => self::LINES, 'from' => $from];
            }
        }
        if ([] !== $p->points) {
            $rows = array_map(static fn (array $r): array => $r + ['role' => '', 'source' => ''], $p->points);
            CoordinateCsv::write($rows, "$p->project\n$p->systemName, metres", "$folder/".self::POINTS);
            $items[] = [
                'kind' => 'points', 'name' => 'points', 'count' => \count($p->points), 'file' => self::POINTS,
                'from' => $p->from['points'] ?? '',
            ];
        }
        if ([] !== $p->background) {
            (new GeoJsonWriter())->write(self::background($p), "$folder/".self::BACKGROUND);
            $items[] = [
                'kind' => 'background', 'name' => 'background', 'count' => \count($p->background), 'file' => self::BACKGROUND,
                'from' => $p->from['background'] ?? '',
            ];
        }
        $texts = [
            [self::SYSTEM, $p->system, 'system', $p->systemName], [self::SITE, $p->localization, 'localization', $p->localizationName],
            [self::GEOID, $p->geoid, 'geoid', $p->geoidName],
        ];
        foreach ($texts as [$file, $bytes, $kind, $name]) {
            if ('' !== $bytes) {
                file_put_contents("$folder/$file", $bytes);
                $items[] = ['kind' => $kind, 'name' => $name, 'count' => 1, 'file' => $file, 'from' => $p->from[$kind] ?? ''];
            }
        }

        return $items;
    }

    private static function background(Package $p): FeatureSet
    {
        $set = new FeatureSet();
        $set->unit = 'metre';
        $set->crs = $p->systemCode;
        foreach ($p->background as $line) {
            $set->features[] = new Feature(Feature::LINE, 'background', [[$line['vertices']]], ['drawn' => $line['layer']]);
        }

        return $set;
    }

    /**
     * @param list<array<string, mixed>> $items
     * @param array<string, string>      $names
     * @param list<string>               $lost
     *
     * @return array<string, mixed>
     */
    private static function manifest(Package $p, array $items, array $names, array $lost, string $folder): array
    {
        $files = [];
        foreach (glob("$folder/*") ?: [] as $file) {
            $files[] = ['name' => basename($file), 'size' => (int) filesize($file), 'sha256' => (string) hash_file('sha256', $file)];
        }
        $layers = [];
        foreach ($p->layers as $name => $colour) {
            $layers[] = ['name' => (string) $name, 'colour' => $colour, 'drawn' => $names[$name]];
        }

        return [
            'format' => self::FORMAT, 'name' => $p->name, 'project' => $p->project, 'made' => $p->made,
            'system' => ['name' => $p->systemName, 'code' => $p->systemCode, 'heights' => $p->heights, 'unit' => 'metre'],
            'checked' => $p->checked, 'items' => $items, 'layers' => $layers, 'files' => $files, 'leftOut' => [...$p->leftOut, ...$lost],
        ];
    }

    private static function zip(string $folder, string $path): void
    {
        $zip = new \ZipArchive();
        $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        foreach (glob("$folder/*") ?: [] as $file) {
            $zip->addFile($file, basename($file));
            $zip->setMtimeName(basename($file), self::NO_TIME);
        }
        if (!$zip->close()) {
            throw new \RuntimeException($path.' cannot be written.');
        }
    }
}
