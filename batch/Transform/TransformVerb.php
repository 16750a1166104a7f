<?php

declare(strict_types=1);

namespace Batch\Transform;

use Batch\Input;
use Batch\Reference;
use Batch\Verb;
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
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('transform', 'Coordinates of a CSV table from one system to another; CSV on standard output')]
final class TransformVerb extends Verb
{
    private const JSON = \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE
        | \JSON_UNESCAPED_SLASHES | \JSON_PRETTY_PRINT;
    private const ADVICE = '; name it with --grid, or allow a worse way with --allow-ballpark';

    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'the table, IN.csv');
        $grid = 'an NTv2 or geoid grid that is used before all others: by the operation that names it, '
            .'else between the two datums as it stands';
        $this->addOption('grid', null, InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY, $grid);
        foreach ([
            'from' => 'system the coordinates are in: EPSG:n, EPSG:h+EPSG:v, or a file holding WKT2 or a PROJ string',
            'to' => 'system they are wanted in',
            'geoid' => 'geoid model of the height system (GTX, ISG text, GeoTIFF)',
            'area' => 'south,west,north,east: one transformation for this area, instead of the best for every row',
            'epoch' => 'decimal year, for parameters that move with time',
        ] as $name => $what) {
            $this->addOption($name, null, InputOption::VALUE_REQUIRED, $what);
        }
        foreach ([
            'pipeline' => 'print the operation and its steps as JSON instead',
            'allow-ballpark' => 'fall back to a less accurate way when a grid is missing',
            'skip-bad' => 'leave bad rows out and list them, instead of ending at the first',
            'native' => 'w and s columns for systems whose axes point west and south',
        ] as $name => $what) {
            $this->addOption($name, null, InputOption::VALUE_NONE, $what);
        }
        $this->setHelp('Columns are lat,lon[,h] (decimal degrees), e,n[,h] (the system\'s unit) or x,y,z; others pass unchanged.');
    }

    protected function answer(InputInterface $input): void
    {
        $registry = Reference::registry();
        $from = self::text($input, 'from') ?? throw new UnusableInput('--from', 'is missing: name the system the coordinates are in');
        $from = Reference::system($registry, '--from', $from);
        $to = self::text($input, 'to') ?? throw new UnusableInput('--to', 'is missing: name the system the coordinates are wanted in');
        $to = Reference::system($registry, '--to', $to);
        foreach ([$from, $to] as $system) {
            $this->warnDeprecated($system);
        }
        try {
            $files = GridFiles::installed()->with(array_values($input->getOption('grid')));
        } catch (UnreadableGrid $e) {
            throw new UnusableInput('--grid', $e->getMessage());
        }
        $file = self::text($input, 'geoid');
        $pipeline = (bool) $input->getOption('pipeline');
        try {
            $geoid = null === $file ? null : $files->geoid($file);
            $area = self::area(self::text($input, 'area'));
            $epoch = self::epoch(self::text($input, 'epoch'));
            $settings = new RouteSettings($geoid, $area, $epoch, (bool) $input->getOption('allow-ballpark'));
            $route = (new RouteFinder($registry, $files))->route($from, $to, $settings);
        } catch (UnreadableGrid|UnusedGrid|MissingGrid|NoWay|UnknownSystem|UnsupportedMethod $e) {
            throw new UnusableInput('', self::advice($e));
        }
        foreach ($route->warnings as $warning) {
            $this->say("warning: $warning");
        }
        if ($pipeline) {
            $this->describe($route, $input->getArgument('files')[0] ?? null);

            return;
        }
        $path = self::onlyFile($input, 'CSV');
        $in = Input::open($path);
        $table = new TransformTable($route, (bool) $input->getOption('native'), (bool) $input->getOption('skip-bad'));
        try {
            $table->run($in, $this->out, fn (int $line, string $reason) => $this->say("left out: $path line $line: $reason"));
        } catch (UnusableInput $e) {
            throw new UnusableInput(trim($path.' '.$e->where), $e->reason.(str_contains($e->reason, 'not installed') ? self::ADVICE : ''));
        }
        if ($table->heightsPassed()) {
            $this->say(\sprintf('h passes unchanged: %s has no height axis', $from->hasHeight() ? $to->name() : $from->name()));
        }
        if ($table->outsideArea() > 0) {
            $words = 'warning: %d of %d rows lie outside the area of use of %s';
            $this->say(\sprintf($words, $table->outsideArea(), $table->rows(), $to->name()));
        }
        foreach ($route->stages as $stage) {
            foreach ($stage['choice']->used ?? [] as $i => $count) {
                $candidate = null === $stage['choice'] ? null : $stage['choice']->candidates[$i];
                if ($count > 0 && null !== $candidate && !$candidate->isIdentity()) {
                    $this->say(\sprintf('%d rows by %s (%s)', $count, $candidate->name, $candidate->accuracyText()));
                }
            }
        }
    }

    private function describe(Route $route, ?string $file): void
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
        fwrite($this->out, json_encode($operation, self::JSON)."\n");
    }

    private static function advice(\Throwable $e): string
    {
        return $e->getMessage().match (true) {
            $e instanceof MissingGrid && !str_contains($e->getMessage(), '--geoid') => self::ADVICE,
            $e instanceof NoWay => '; --allow-ballpark keeps latitudes and longitudes as they are',
            default => '',
        };
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

    private function warnDeprecated(CoordinateSystem $system): void
    {
        foreach ([$system->horizontal, $system->vertical] as $part) {
            if (null !== $part && $part->deprecated) {
                $this->say(\sprintf(
                    'warning: %s is deprecated%s', $part->label(),
                    null === $part->successor ? '' : '; use '.$part->successor,
                ));
            }
        }
    }
}
