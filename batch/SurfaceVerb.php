<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Exchange\GeoJson\SurfaceLines;
use Mensura\Exchange\LandXml\LandXmlSurface;
use Mensura\Exchange\PointsCsv\PointsCsvReader;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Contours;
use Mensura\Surface\RimSurface;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\SurfaceLine;
use Mensura\Surface\Tin;
use Mensura\Surface\Volume;

final class SurfaceVerb implements Verb
{
    public static function help(): string
    {
        return <<<'TXT'
            mensura surface POINTS.csv [--lines LINES.geojson] [--max-edge M] [--crossing mean]
                            [--contours INTERVAL [--contours-out F.geojson]]
                            [--against OTHER.csv|OTHER.xml|ELEVATION|rim] [--out SURFACE.xml]

            Triangulates points with columns id,e,n,h; prints mensura-surface/1 JSON.
              --lines         breaklines, boundaries and voids (properties.role), project coordinates
              --max-edge      leave out triangles with a longer edge (metres, in plan)
              --crossing mean breaklines that cross at different heights meet at the mean
              --contours      lengths of contours per level; --contours-out writes them
              --against       volume against another surface, an elevation, or the surface through the own edge
              --out           the surface as LandXML 1.2

            TXT;
    }

    public function run(array $arguments, $out, $err): void
    {
        $options = Arguments::parse($arguments, ['lines', 'max-edge', 'contours', 'contours-out', 'against', 'out', 'crossing'], []);
        $file = $options->onlyFile('points');
        $interval = $options->positive('contours');
        $crossing = $options->text('crossing');
        if (null !== $crossing && 'mean' !== $crossing) {
            throw new UnusableInput('--crossing', 'can only be "mean"');
        }
        if ($options->has('contours-out') && null === $interval) {
            throw new UnusableInput('--contours-out', 'needs --contours with an interval');
        }
        $maxEdge = $options->positive('max-edge');
        $linesFile = $options->text('lines');
        $lines = [];
        if (null !== $linesFile) {
            try {
                $lines = SurfaceLines::read(Input::contents($linesFile));
            } catch (UnusableInput $e) {
                throw new UnusableInput(trim($linesFile.' '.$e->where), $e->reason);
            }
        }
        $tin = $this->build($file, $lines, 'mean' === $crossing, $maxEdge, $err, $linesFile);
        $result = ['format' => 'mensura-surface/1'] + $tin->statistics();
        $against = $options->text('against');
        if (null !== $against) {
            $result['volume'] = match (true) {
                is_numeric($against) => Volume::againstElevation($tin, (float) $against),
                'rim' === $against => Volume::againstSurface($tin, RimSurface::of($tin)),
                str_ends_with(strtolower($against), '.xml') => Volume::againstSurface($tin, LandXmlSurface::read($against)),
                default => Volume::againstSurface($tin, $this->build($against, [], false, null, $err, null)),
            };
        }
        $files = [];
        if (null !== $interval) {
            $levels = Contours::of($tin, $interval);
            $result['contours'] = ['interval' => $interval, 'levels' => array_map(static fn (array $l): array => ['h' => $l['h'], 'length' => $l['length']], $levels)];
            if (null !== $contoursOut = $options->text('contours-out')) {
                $files[$contoursOut] = SurfaceLines::contours($levels);
            }
        }
        if (null !== $surfaceOut = $options->text('out')) {
            $files[$surfaceOut] = LandXmlSurface::write($tin, '-' === $file ? 'surface' : pathinfo($file, \PATHINFO_FILENAME), self::dateOf($file));
        }
        foreach ($files as $path => $contents) {
            self::writeWhole($path, $contents);
        }
        fwrite($out, json_encode($result, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES)."\n");
    }

    /**
     * @param list<SurfaceLine> $lines
     * @param resource          $err
     */
    private function build(string $file, array $lines, bool $mean, ?float $maxEdge, $err, ?string $linesFile): Tin
    {
        $stream = Input::open($file);
        ['names' => $names, 'x' => $x, 'y' => $y, 'z' => $z] = PointsCsvReader::read($stream, $file);
        $builder = new SurfaceBuilder($x, $y, $z, $names, $lines, $mean);
        try {
            $tin = $builder->build($maxEdge);
        } catch (UnusableInput $e) {
            throw new UnusableInput(trim(('' === $e->where ? $file : $linesFile).' '.$e->where), $e->reason);
        }
        foreach ([...$builder->warnings, ...array_map(static fn (string $warning): string => "$linesFile $warning", $builder->lineWarnings)] as $warning) {
            fwrite($err, "warning: $warning\n");
        }

        return $tin;
    }

    /** When the points were last written: the same points give the same file, whenever and however they are computed. */
    private static function dateOf(string $file): \DateTimeImmutable
    {
        $seconds = is_file($file) ? filemtime($file) : false;

        return new \DateTimeImmutable(\sprintf('@%d', false === $seconds ? time() : $seconds));
    }

    private static function writeWhole(string $path, string $contents): void
    {
        $part = $path.'.part';
        if (false === @file_put_contents($part, $contents) || !@rename($part, $path)) {
            @unlink($part);
            throw new UnusableInput($path, 'cannot be written');
        }
    }
}
