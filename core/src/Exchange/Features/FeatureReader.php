<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features;

use Mensura\Exchange\Features\Read\DxfFeatures;
use Mensura\Exchange\Features\Read\FeatureTap;
use Mensura\Exchange\Features\Read\GeoJsonFeatures;
use Mensura\Exchange\Features\Read\GeoPackageFeatures;
use Mensura\Exchange\Features\Read\GpxFeatures;
use Mensura\Exchange\Features\Read\KmlFeatures;
use Mensura\Exchange\Features\Read\LandXmlFeatures;
use Mensura\Exchange\Features\Read\ShapefileFeatures;
use Mensura\Exchange\Look\E57Look;
use Mensura\Exchange\Look\FileLook;
use Mensura\Exchange\Look\Looked;
use Mensura\Exchange\Look\NmeaLook;
use Mensura\Exchange\Look\Systems;
use Mensura\Exchange\Look\TiffLook;
use Mensura\Exchange\Look\ZipLook;
use Mensura\Exchange\Points\PointFile;
use Mensura\Fault\UnusableInput;

/** Features of a file of any kind that is converted; told by its contents, as the look tells it. */
final class FeatureReader
{
    private const CLOUDS = ['las', 'laz', 'ply'];

    /** Kinds whose features are those the look counts, one for one. */
    private const COUNTED = ['geojson', 'geopackage', 'shapefile', 'kml', 'gpx'];

    /** What is held as features at once. */
    private const MOST = 500_000;

    /** @var list<string> what of the file is not among its features */
    public array $left = [];

    private function __construct(public readonly FeatureSet $set, public readonly Looked $look)
    {
        $this->set->crs = $look->crs;
        $this->set->unit = $look->unit;
    }

    /**
     * @param string $name for messages
     *
     * @throws UnusableInput
     */
    public static function of(string $path, string $name): self
    {
        $set = new FeatureSet();
        $set->at = is_file($path) ? (filemtime($path) ?: null) : null;
        $tap = new FeatureTap($set, (string) preg_replace('/\.[^.]*$/', '', basename($name)), self::MOST);
        $reader = new self($set, FileLook::of($path, $name, $tap));
        $reader->read($path, $name, $tap->drawing);

        return $reader;
    }

    private function read(string $path, string $name, DxfFeatures $drawing): void
    {
        $look = $this->look;
        $count = array_sum(array_map($look->counted(...), [Looked::POINT, Looked::LINE, Looked::POLYGON, Looked::FACE]));
        if ($count > self::MOST) {
            throw new UnusableInput($name, FeatureTap::tooMany((string) $count, self::MOST)->reason);
        }
        $layer = (string) preg_replace('/\.[^.]*$/', '', basename($name));
        match (true) {
            \in_array($look->kind, self::CLOUDS, true) => $this->cloud($path, $name, $layer),
            \in_array($look->kind, ['csv', 'xyz'], true) => null, // read as it was looked at
            'geojson' === $look->kind => GeoJsonFeatures::read($this->set, $path, $layer, $name),
            'geopackage' === $look->kind => $this->left = GeoPackageFeatures::read($this->set, $path, $name),
            'shapefile' === $look->kind => $this->shapefile($path, $layer, $name),
            'e57' === $look->kind => $this->scans($path, $name),
            'geotiff' === $look->kind => $this->cells($path, $layer, $name),
            'nmea' === $look->kind => $this->fixes($path, $layer, $name),
            'kml' === $look->kind => KmlFeatures::read($this->set, $path, $layer, $name),
            'gpx' === $look->kind => GpxFeatures::read($this->set, $path, $name),
            'dxf' === $look->kind => $this->left = $drawing->finish($path, $name, $look->counted(Looked::FACE) > 0),
            'landxml' === $look->kind => $this->left = LandXmlFeatures::read($this->set, $path, $name),
            default => throw new UnusableInput($name, \sprintf('is of kind %s, which is not converted', $look->kind)),
        };
        if (\in_array($look->kind, self::COUNTED, true)) {
            $this->miss();
        }
    }

    /** What the look counted and was not read, such as a geometry of a kind that is not known here, is said. */
    private function miss(): void
    {
        $read = array_count_values(array_map(static fn (Feature $f): string => $f->kind.'s', $this->set->features));
        foreach ([Looked::POINT, Looked::LINE, Looked::POLYGON] as $kind) {
            $missing = $this->look->counted($kind) - ($read[$kind] ?? 0);
            if ($missing > 0) {
                $this->left[] = "$missing $kind";
            }
        }
    }

    private function shapefile(string $path, string $layer, string $name): void
    {
        if (str_starts_with((string) file_get_contents($path, length: 2), 'PK')) {
            $each = fn (string $stem, $stream, \Closure $companion) => ShapefileFeatures::read(
                $this->set, (string) stream_get_contents($stream), $companion, $stem,
            );
            ZipLook::read(new Looked('shapefile'), $path, new Systems(), $name, $each);

            return;
        }
        $companion = static function (string $ending) use ($path): ?string {
            foreach ([$ending, strtoupper($ending)] as $e) {
                $beside = (string) preg_replace('/\.[^.\/]*$/', '', $path).'.'.$e;
                if (is_file($beside)) {
                    return (string) file_get_contents($beside);
                }
            }

            return null;
        };
        ShapefileFeatures::read($this->set, (string) file_get_contents($path), $companion, $layer);
    }

    private function scans(string $path, string $name): void
    {
        $set = $this->set;
        E57Look::read(new Looked('e57'), $path, new Systems(), $name, static function (string $scan, array $place) use ($set): void {
            $set->features[] = new Feature(Feature::POINT, $scan, [[[$place]]]);
        });
        $attributes = $this->look->toArray()['attributes'];
        $this->left = [] === $attributes ? [] : [implode(', ', $attributes).' of its points'];
    }

    private function cells(string $path, string $layer, string $name): void
    {
        $set = $this->set;
        TiffLook::read(new Looked('geotiff'), $path, new Systems(), $name, static function (array $place) use ($set, $layer): void {
            $set->features[] = new Feature(Feature::POINT, $layer, [[[$place]]]);
        });
    }

    private function fixes(string $path, string $layer, string $name): void
    {
        $stream = @fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read');
        $set = $this->set;
        NmeaLook::read(new Looked('nmea'), $stream, static function (array $place, array $fix) use ($set, $layer): void {
            $set->features[] = new Feature(Feature::POINT, $layer, [[[$place]]], $fix);
        });
        fclose($stream);
    }

    private function cloud(string $path, string $name, string $layer): void
    {
        $points = PointFile::read($path, $name);
        foreach ($points->x as $i => $x) {
            $properties = null === $points->classes ? [] : ['class' => $points->classes[$i]];
            $this->set->features[] = new Feature(Feature::POINT, $layer, [[[[$x, $points->y[$i], $points->z[$i]]]]], $properties);
        }
        $this->left = match ($this->look->kind) {
            'ply' => $this->look->counted(Looked::FACE) > 0 ? ['faces'] : [],
            default => ['intensity, returns, times and colours of its points'],
        };
    }
}
