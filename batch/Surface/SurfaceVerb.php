<?php

declare(strict_types=1);

namespace Batch\Surface;

use Batch\Input;
use Batch\Output;
use Batch\Verb;
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
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('surface', 'Triangulates points with columns id,e,n,h; prints mensura-surface/1 JSON')]
final class SurfaceVerb extends Verb
{
    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'the points, POINTS.csv');
        foreach ([
            'lines' => 'breaklines, boundaries and voids (GeoJSON with properties.role), project coordinates',
            'max-edge' => 'leave out triangles with a longer edge (metres, in plan)',
            'crossing' => '"mean": breaklines that cross at different heights meet at the mean',
            'contours' => 'interval; lengths of contours per level',
            'contours-out' => 'file the contours are written to, as GeoJSON',
            'against' => 'volume against OTHER.csv, OTHER.xml, an elevation, or "rim": the surface through the own edge',
            'out' => 'file the surface is written to, as LandXML 1.2',
        ] as $name => $what) {
            $this->addOption($name, null, InputOption::VALUE_REQUIRED, $what);
        }
    }

    protected function answer(InputInterface $input): void
    {
        $file = self::onlyFile($input, 'points');
        $interval = self::positive($input, 'contours');
        $crossing = self::text($input, 'crossing');
        if (null !== $crossing && 'mean' !== $crossing) {
            throw new UnusableInput('--crossing', 'can only be "mean"');
        }
        if (null !== self::text($input, 'contours-out') && null === $interval) {
            throw new UnusableInput('--contours-out', 'needs --contours with an interval');
        }
        $maxEdge = self::positive($input, 'max-edge');
        $linesFile = self::text($input, 'lines');
        $lines = [];
        if (null !== $linesFile) {
            try {
                $lines = SurfaceLines::read(Input::contents($linesFile));
            } catch (UnusableInput $e) {
                throw new UnusableInput(trim($linesFile.' '.$e->where), $e->reason);
            }
        }
        $tin = $this->build($file, $lines, 'mean' === $crossing, $maxEdge, $linesFile);
        $result = ['format' => 'mensura-surface/1'] + $tin->statistics();
        $against = self::text($input, 'against');
        if (null !== $against) {
            $result['volume'] = match (true) {
                is_numeric($against) => Volume::againstElevation($tin, (float) $against),
                'rim' === $against => Volume::againstSurface($tin, RimSurface::of($tin)),
                str_ends_with(strtolower($against), '.xml') => Volume::againstSurface($tin, LandXmlSurface::read($against)),
                default => Volume::againstSurface($tin, $this->build($against, [], false, null, null)),
            };
        }
        $files = [];
        if (null !== $interval) {
            $levels = Contours::of($tin, $interval);
            $lengths = array_map(static fn (array $l): array => ['h' => $l['h'], 'length' => $l['length']], $levels);
            $result['contours'] = ['interval' => $interval, 'levels' => $lengths];
            if (null !== $contoursOut = self::text($input, 'contours-out')) {
                $files[$contoursOut] = SurfaceLines::contours($levels);
            }
        }
        if (null !== $surfaceOut = self::text($input, 'out')) {
            $name = '-' === $file ? 'surface' : pathinfo($file, \PATHINFO_FILENAME);
            $files[$surfaceOut] = LandXmlSurface::write($tin, $name, self::dateOf($file));
        }
        foreach ($files as $path => $contents) {
            Output::whole($path, static function ($stream) use ($contents): void {
                fwrite($stream, $contents);
            });
        }
        fwrite($this->out, json_encode($result, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES)."\n");
    }

    /** @param list<SurfaceLine> $lines */
    private function build(string $file, array $lines, bool $mean, ?float $maxEdge, ?string $linesFile): Tin
    {
        $stream = Input::open($file);
        ['names' => $names, 'x' => $x, 'y' => $y, 'z' => $z] = PointsCsvReader::read($stream, $file);
        $builder = new SurfaceBuilder($x, $y, $z, $names, $lines, $mean);
        try {
            $tin = $builder->build($maxEdge);
        } catch (UnusableInput $e) {
            throw new UnusableInput(trim(('' === $e->where ? $file : $linesFile).' '.$e->where), $e->reason);
        }
        $ofLines = array_map(static fn (string $warning): string => "$linesFile $warning", $builder->lineWarnings);
        foreach ([...$builder->warnings, ...$ofLines] as $warning) {
            $this->say("warning: $warning");
        }

        return $tin;
    }

    /** When the points were last written: the same points give the same file, whenever and however they are computed. */
    private static function dateOf(string $file): \DateTimeImmutable
    {
        $seconds = is_file($file) ? filemtime($file) : false;

        return new \DateTimeImmutable(\sprintf('@%d', false === $seconds ? time() : $seconds));
    }
}
