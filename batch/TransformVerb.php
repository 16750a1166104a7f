<?php

declare(strict_types=1);

namespace Batch;

use Mensura\Exchange\CoordinateTable\TransformTable;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\UnreadableGrid;
use Mensura\Reference\Operation\MissingGrid;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\Route;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\Operation\RouteSettings;
use Mensura\Reference\Operation\UnusedGrid;
use Mensura\Reference\UnknownSystem;
use Mensura\Reference\UnsupportedMethod;

final class TransformVerb implements Verb
{
    public static function help(): string
    {
        return <<<'TXT'
            mensura transform --from CRS --to CRS [--geoid FILE] [--grid FILE]... [--area S,W,N,E] [--epoch YEAR]
                              [--pipeline] [--allow-ballpark] [--skip-bad] [--native] IN.csv

            Coordinates of a CSV table from one system to another; CSV on standard output.
            CRS is EPSG:n, EPSG:h+EPSG:v, or a file holding WKT2 or a PROJ string.
              columns           lat,lon[,h] (decimal degrees), e,n[,h] (the system's unit), x,y,z; others pass unchanged
              --geoid FILE      geoid model of the height system (GTX, ISG text, GeoTIFF)
              --grid FILE       an NTv2 or geoid grid that is used before all others: by the operation that names it, else
                                between the two datums as it stands; may be repeated
              --area S,W,N,E    one transformation for this area, instead of the best for every row
              --epoch YEAR      decimal year, for parameters that move with time
              --pipeline        print the operation and its steps as JSON instead
              --allow-ballpark  fall back to a less accurate way when a grid is missing
              --skip-bad        leave bad rows out and list them, instead of ending at the first
              --native          w and s columns for systems whose axes point west and south

            TXT;
    }

    public function run(array $arguments, $out, $err): void
    {
        [$arguments, $grids] = self::repeated($arguments);
        $options = Arguments::parse($arguments, ['from', 'to', 'geoid', 'area', 'epoch'], ['pipeline', 'allow-ballpark', 'skip-bad', 'native']);
        $registry = Reference::registry();
        $from = Reference::system($registry, '--from', $options->text('from') ?? throw new UnusableInput('--from', 'is missing: name the system the coordinates are in'));
        $to = Reference::system($registry, '--to', $options->text('to') ?? throw new UnusableInput('--to', 'is missing: name the system the coordinates are wanted in'));
        foreach ([$from, $to] as $system) {
            self::warnDeprecated($system, $err);
        }
        try {
            $files = GridFiles::installed()->with($grids);
        } catch (UnreadableGrid $e) {
            throw new UnusableInput('--grid', $e->getMessage());
        }
        $file = $options->text('geoid');
        $pipeline = $options->has('pipeline');
        try {
            $geoid = null === $file ? null : $files->geoid($file);
            $settings = new RouteSettings($geoid, self::area($options->text('area')), self::epoch($options->text('epoch')), $options->has('allow-ballpark'));
            $route = (new RouteFinder($registry, $files))->route($from, $to, $settings);
        } catch (UnreadableGrid|UnusedGrid|MissingGrid|NoWay|UnknownSystem|UnsupportedMethod $e) {
            throw new UnusableInput('', self::advice($e));
        }
        foreach ($route->warnings as $warning) {
            fwrite($err, "warning: $warning\n");
        }
        if ($pipeline) {
            $this->describe($route, $options->rest[0] ?? null, $out);

            return;
        }
        $path = $options->onlyFile('CSV');
        $in = Input::open($path);
        $table = new TransformTable($route, $options->has('native'), $options->has('skip-bad'));
        try {
            $table->run($in, $out, static function (int $line, string $reason) use ($err, $path): void {
                fwrite($err, "left out: $path line $line: $reason\n");
            });
        } catch (UnusableInput $e) {
            throw new UnusableInput(trim($path.' '.$e->where), $e->reason.(str_contains($e->reason, 'not installed') ? '; name it with --grid, or allow a worse way with --allow-ballpark' : ''));
        }
        if ($table->heightsPassed()) {
            fwrite($err, \sprintf("h passes unchanged: %s has no height axis\n", $from->hasHeight() ? $to->name() : $from->name()));
        }
        if ($table->outsideArea() > 0) {
            fwrite($err, \sprintf("warning: %d of %d rows lie outside the area of use of %s\n", $table->outsideArea(), $table->rows(), $to->name()));
        }
        foreach ($route->stages as $stage) {
            foreach ($stage['choice']->used ?? [] as $i => $count) {
                $candidate = null === $stage['choice'] ? null : $stage['choice']->candidates[$i];
                if ($count > 0 && null !== $candidate && !$candidate->isIdentity()) {
                    fwrite($err, \sprintf("%d rows by %s (%s)\n", $count, $candidate->name, $candidate->accuracyText()));
                }
            }
        }
    }

    /** @param resource $out */
    private function describe(Route $route, ?string $file, $out): void
    {
        $lat = $lon = null;
        if (null !== $file) {
            try {
                [$lat, $lon] = (new TransformTable($route, false, false))->firstPosition(Input::open($file)) ?? [null, null];
            } catch (UnusableInput $e) {
                throw new UnusableInput(trim($file.' '.$e->where), $e->reason);
            }
        }
        try {
            $operation = $route->describe($lat, $lon);
        } catch (\DomainException $e) {
            throw new UnusableInput($file ?? '', self::advice($e));
        }
        $operation['steps'] = array_map(static fn ($step): array => $step->toArray(), $operation['steps']);
        fwrite($out, json_encode($operation, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRETTY_PRINT)."\n");
    }

    private static function advice(\Throwable $e): string
    {
        return $e->getMessage().match (true) {
            $e instanceof MissingGrid && !str_contains($e->getMessage(), '--geoid') => '; name it with --grid, or allow a worse way with --allow-ballpark',
            $e instanceof NoWay => '; --allow-ballpark keeps latitudes and longitudes as they are',
            default => '',
        };
    }

    /**
     * @param list<string> $arguments
     *
     * @return array{list<string>, list<string>} arguments without --grid, grid files
     */
    private static function repeated(array $arguments): array
    {
        $rest = $grids = [];
        while ([] !== $arguments) {
            $argument = array_shift($arguments);
            if (str_starts_with($argument, '--grid=')) {
                $grids[] = substr($argument, 7);
            } elseif ('--grid' === $argument) {
                $grids[] = array_shift($arguments) ?? throw new UnusableInput('--grid', 'needs a value');
            } else {
                $rest[] = $argument;
            }
        }

        return [$rest, $grids];
    }

    private static function area(?string $text): ?Area
    {
        if (null === $text) {
            return null;
        }
        $v = explode(',', $text);
        foreach ($v as $value) {
            if (!is_numeric(trim($value))) {
                throw new UnusableInput('--area', \sprintf('"%s" is not south,west,north,east in degrees', $text));
            }
        }
        if (4 !== \count($v)) {
            throw new UnusableInput('--area', \sprintf('"%s" is not south,west,north,east in degrees', $text));
        }
        try {
            return new Area((float) $v[0], (float) $v[1], (float) $v[2], (float) $v[3]);
        } catch (\DomainException $e) {
            throw new UnusableInput('--area', $e->getMessage());
        }
    }

    private static function epoch(?string $text): ?float
    {
        if (null === $text) {
            return null;
        }
        if (!is_numeric($text) || (float) $text < 1900.0 || (float) $text > 2200.0) {
            throw new UnusableInput('--epoch', \sprintf('"%s" is not a decimal year such as 2026.5', $text));
        }

        return (float) $text;
    }

    /** @param resource $err */
    private static function warnDeprecated(CoordinateSystem $system, $err): void
    {
        foreach ([$system->horizontal, $system->vertical] as $part) {
            if (null !== $part && $part->deprecated) {
                fwrite($err, \sprintf("warning: %s is deprecated%s\n", $part->label(), null === $part->successor ? '' : '; use '.$part->successor));
            }
        }
    }
}
