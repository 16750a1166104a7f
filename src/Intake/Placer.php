<?php

declare(strict_types=1);

namespace App\Intake;

use App\Project\Project;
use App\Reference\ApplyLocalization;
use App\Reference\Movement;
use App\Reference\ProjectReference;
use Doctrine\DBAL\Connection;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Fault\UnusableInput;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Geodesy\Geodesic;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\HorizontalSystem;

/** Brings the coordinates of a file into the project's system and heights. */
final class Placer
{
    private const FAR_METRES = 200000.0;
    private const SAMPLE = 200;

    private static ?Geodesic $geodesic = null;

    public function __construct(private readonly Connection $connection, private readonly ProjectReference $references)
    {
    }

    public function place(Project $project, FileReading $reading): Placement
    {
        $meaning = $reading->meaning;
        $records = $reading->reader->records;
        $system = $this->references->of($project);
        if (!\in_array($reading->mapping->kind, [FileKind::Control, FileKind::Points], true)) {
            return new Placement('global', $records, [], []);
        }
        if (null === $system) {
            $findings = 'project' === $meaning->frame || 'local' === $meaning->frame ? [] : [new Finding(Finding::ERROR, null, 'a plane project takes plane coordinates only; give the project a system first, then bring this file')];

            return new Placement('local', $records, [], $findings);
        }
        if ('local' === $meaning->frame) {
            return new Placement('local', $records, [], []);
        }
        try {
            return str_starts_with($meaning->frame, 'localization:')
                ? new Placement('global', $this->localized($project, (int) substr($meaning->frame, 13), $records), [], [])
                : $this->moved($project, $system, $reading, $meaning);
        } catch (UnusableInput $e) {
            return new Placement('global', $records, [], [new Finding(Finding::ERROR, null, $e->reason)]);
        }
    }

    private function moved(Project $project, HorizontalSystem $system, FileReading $reading, Meaning $meaning): Placement
    {
        $records = $reading->reader->records;
        $from = 'project' === $meaning->frame ? $system : $this->references->projected($project->id(), $meaning->frame);
        $extent = $this->references->extent($project);
        $asks = [];
        if (null === $meaning->swap && $this->looksSwapped($from, $extent, $records)) {
            $asks['swap'] = \sprintf('Read as easting and northing these points lie outside %s; with the two exchanged they lie inside. Exchange them?', $from->label());
        }
        if (true === $meaning->swap) {
            $records = array_map(static fn (array $r): array => ['e' => $r['n'], 'n' => $r['e']] + $r, $records);
        }
        $heights = '' !== $meaning->heights ? $meaning->heights : $reading->mapping->heightsSaid($reading->table);
        $hasHeights = [] !== array_filter(array_column($records, 'h'), static fn (mixed $h): bool => null !== $h);
        if ($hasHeights && null === $heights) {
            $asks['heights'] = 'Are these heights ellipsoidal, or above the geoid?';
        }
        $geoid = '' !== $meaning->geoid ? $meaning->geoid : ('geoid' === $project->heights() ? $project->geoid() : '');
        if ($hasHeights && 'geoid' === $heights && '' === $geoid) {
            $asks['geoid'] = 'Above which geoid are they? The project has ellipsoidal heights.';
        }
        $target = $this->references->geoidOf($project);
        if (!isset($asks['swap'])) {
            // Until heights are answered the place alone is worked out.
            $source = 'geoid' === $heights && '' !== $geoid ? $this->references->geoid($project->id(), $geoid) : null;
            if (null !== $source) {
                ProjectReference::fits($source, $from);
            }
            $known = null !== $heights && !isset($asks['geoid']);
            $same = 'project' === $meaning->frame && (!$known || $source?->name === $target?->name);
            if (!$same) {
                $movement = Movement::between($this->references, $project, $from, $known ? $source : null, $system, $known ? $target : null, $extent ?? $from->area);
                foreach ($records as $i => $r) {
                    [$e, $n, $h] = $movement->apply((string) $r['name'], (float) $r['e'], (float) $r['n'], null === $r['h'] ? null : (float) $r['h']);
                    $records[$i] = ['e' => $e, 'n' => $n, 'h' => $h] + $r;
                }
            }
            $where = $this->farAway($system, $extent, $records);
            if (null !== $where && !$meaning->far) {
                $asks['far'] = $where.'. Is that meant?';
            }
        }

        return new Placement('global', $records, $asks, []);
    }

    /**
     * @param list<array<string, mixed>> $records
     *
     * @return list<array<string, mixed>>
     */
    private function localized(Project $project, int $id, array $records): array
    {
        [$name, $system, $heights, $l] = ApplyLocalization::read($this->connection, $project, $id);
        if ($system !== $project->reference() || $heights !== $project->heights().('geoid' === $project->heights() ? '|'.$project->geoid() : '')) {
            throw new UnusableInput('/frame', \sprintf('the localization "%s" leads to %s, the project is in %s with %s heights', $name, $system, $project->reference(), $project->heights()));
        }
        foreach ($records as $i => $r) {
            [$e, $n] = $l->toGrid((float) $r['e'], (float) $r['n']);
            $records[$i] = ['e' => $e, 'n' => $n, 'h' => null === $r['h'] ? null : $l->heightToGrid((float) $r['e'], (float) $r['n'], (float) $r['h'])] + $r;
        }

        return $records;
    }

    /** @param list<array<string, mixed>> $records */
    private function looksSwapped(HorizontalSystem $system, ?Area $extent, array $records): bool
    {
        $sample = \array_slice($records, 0, self::SAMPLE);
        $asGiven = $exchanged = 0;
        foreach ($sample as $r) {
            $asGiven += (int) $this->isPlausible($system, $extent, (float) $r['e'], (float) $r['n']);
            $exchanged += (int) $this->isPlausible($system, $extent, (float) $r['n'], (float) $r['e']);
        }

        return [] !== $sample && 0 === $asGiven && $exchanged === \count($sample);
    }

    private function isPlausible(HorizontalSystem $system, ?Area $extent, float $e, float $n): bool
    {
        try {
            [$lat, $lon] = $system->toGeographic($e, $n);
        } catch (\DomainException) {
            return false;
        }
        if (null !== $extent) {
            return self::away($extent, rad2deg($lat), rad2deg($lon)) < self::FAR_METRES;
        }

        return null === $system->area || $system->area->contains(rad2deg($lat), rad2deg($lon));
    }

    /** @param list<array<string, mixed>> $records in the project's system */
    private function farAway(HorizontalSystem $system, ?Area $extent, array $records): ?string
    {
        if ([] === $records) {
            return null;
        }
        $worst = 0.0;
        $which = '';
        $place = '';
        $outside = 0;
        foreach ($records as $r) {
            try {
                [$lat, $lon] = $system->toGeographic((float) $r['e'], (float) $r['n']);
            } catch (\DomainException) {
                return \sprintf('%s lies outside what %s can represent', $r['name'], $system->label());
            }
            [$lat, $lon] = [rad2deg($lat), fmod(rad2deg($lon) + 540.0, 360.0) - 180.0];
            $outside += (int) (null !== $system->area && !$system->area->contains($lat, $lon));
            $away = null === $extent ? 0.0 : self::away($extent, $lat, $lon);
            if ($away > $worst || '' === $place) {
                $worst = $away;
                $which = (string) $r['name'];
                $place = \sprintf('%.2f° %s, %.2f° %s', abs($lat), $lat < 0.0 ? 'south' : 'north', abs($lon), $lon < 0.0 ? 'west' : 'east');
            }
        }
        if ($worst > self::FAR_METRES) {
            return \sprintf('%s would lie at %s, %s km from the project', $which, $place, number_format($worst / 1000.0, 0, '.', ' '));
        }

        return 0 === $outside ? null : \sprintf('%d of %d points lie outside the area of use of %s (%s); %s would lie at %s', $outside, \count($records), $system->label(), $system->area?->shortName() ?? '', $which, $place);
    }

    /** Distance from the nearest place of an area, metres on the ellipsoid. */
    private static function away(Area $area, float $lat, float $lon): float
    {
        if ($area->contains($lat, $lon)) {
            return 0.0;
        }
        $nearLat = max($area->south, min($area->north, $lat));
        $inside = $area->contains($nearLat, $lon);
        $toWest = abs(fmod($lon - $area->west + 540.0, 360.0) - 180.0);
        $toEast = abs(fmod($lon - $area->east + 540.0, 360.0) - 180.0);

        return (self::$geodesic ??= new Geodesic(Ellipsoid::wgs84()))->inverse($lat, $lon, $nearLat, $inside ? $lon : ($toWest < $toEast ? $area->west : $area->east))['distance'];
    }
}
