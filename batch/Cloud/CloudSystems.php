<?php

declare(strict_types=1);

namespace Batch\Cloud;

use Batch\Reference;
use Mensura\Cloud\PointBlock;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Exchange\Features\Transformed;
use Mensura\Exchange\Features\Write\LasWriter;
use Mensura\Exchange\Look\Systems;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Operation\MissingGrid;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\Route;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\Operation\RouteSettings;

/** Which systems clouds are in, and how they come to the one that is wanted. */
final class CloudSystems
{
    private const METRES = ['foot' => 0.3048, 'US survey foot' => 1200.0 / 3937.0, 'millimetre' => 0.001];

    /** Metres of a unit while the points are worked on, and as they are written. */
    public readonly float $metre;
    public readonly float $writtenMetre;

    /** Whether points are brought over before anything is measured in metres. */
    public readonly bool $isFirst;

    /** Of what is written. */
    public readonly bool $isGeographic;
    public readonly ?string $code;
    public readonly ?CoordinateSystem $target;

    /** @var array<string, array{CoordinateSystem, Route}> by the code of the system they are in */
    private array $routes = [];

    /** @param non-empty-list<CloudReader> $sources */
    public function __construct(array $sources, ?string $to)
    {
        $look = $sources[0]->look;
        foreach ($sources as $source) {
            if (null === $to && ($source->look->crs !== $look->crs || $source->look->unit !== $look->unit)) {
                $words = 'is in %s, %s in %s: name the system they are wanted in with --to-crs';
                $said = static fn (CloudReader $s): string => $s->look->crs ?? $s->look->unit ?? 'no system that it names';
                throw new UnusableInput($source->name, \sprintf($words, $said($source), $sources[0]->name, $said($sources[0])));
            }
        }
        $isDegrees = 'degree' === $look->unit;
        $this->target = null === $to ? null : $this->routes($sources, $to);
        $this->isFirst = null !== $this->target && ($isDegrees || \count($this->routes) > 1);
        $target = null === $this->target ? $look->unit
            : ($this->target->horizontal->isProjected() ? Systems::unitOf($this->target->horizontal->unit) : 'degree');
        $this->isGeographic = 'degree' === $target;
        $this->code = null === $this->target ? $look->crs : $this->target->horizontal->code;
        $this->writtenMetre = self::METRES[$target ?? ''] ?? 1.0;
        $this->metre = $this->isFirst ? $this->writtenMetre : self::METRES[$look->unit ?? ''] ?? 1.0;
        $this->isDegrees = $this->isFirst ? $this->isGeographic : $isDegrees;
    }

    private readonly bool $isDegrees;

    /** @throws UnusableInput where nothing can be measured in metres */
    public function refuseDegrees(): void
    {
        if ($this->isDegrees) {
            $words = 'its coordinates are degrees, in which nothing is thinned or classified: name a projected system';
            throw new UnusableInput('--to-crs', $words);
        }
    }

    public function bring(PointBlock $points, CloudReader $source): PointBlock
    {
        if (null === $this->target) {
            return $points;
        }
        [$from, $route] = $this->routes[(string) $source->look->crs];
        $x = $y = $z = [];
        foreach ($points->x as $i => $e) {
            try {
                [$x[], $y[], $h] = Transformed::place($from, $this->target, $route, $e, $points->y[$i], $points->z[$i]);
                $z[] = $h ?? $points->z[$i];
            } catch (\DomainException $e) {
                $words = 'a point at %s %s cannot be brought to %s: %s';
                $reason = \sprintf($words, $points->x[$i], $points->y[$i], $this->target->name(), $e->getMessage());
                throw new UnusableInput($source->name, $reason);
            }
        }

        return new PointBlock($x, $y, $z, $points->classes, $points->records, $points->looks);
    }

    /** Header records of a LAS file that say the system of what is written. */
    public function projection(CloudReader $first): string
    {
        return null === $this->target ? $first->projection() : LasWriter::system($this->code, $this->isGeographic);
    }

    /** @param non-empty-list<CloudReader> $sources */
    private function routes(array $sources, string $to): CoordinateSystem
    {
        $registry = Reference::registry();
        $target = Reference::system($registry, '--to-crs', $to);
        if (HorizontalSystem::GEOCENTRIC === $target->horizontal->kind) {
            throw new UnusableInput('--to-crs', 'is geocentric; name a geographic or projected system');
        }
        foreach ($sources as $source) {
            $code = $source->look->crs
                ?? throw new UnusableInput('--to-crs', \sprintf('%s does not say which system it is in', $source->name));
            try {
                $from = Reference::system($registry, '--to-crs', $code);
                $route = (new RouteFinder($registry, GridFiles::installed()))->route($from, $target, new RouteSettings());
                $this->routes[$code] ??= [$from, $route];
            } catch (MissingGrid|NoWay $e) {
                throw new UnusableInput('--to-crs', $e->getMessage());
            }
        }

        return $target;
    }
}
