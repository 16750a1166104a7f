<?php

declare(strict_types=1);

namespace App\Intake;

use App\Project\Project;
use App\Reference\ApplyLocalization;
use App\Reference\Movement;
use App\Reference\ProjectReference;
use App\Reference\SystemDescription;
use Doctrine\DBAL\Connection;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\HorizontalSystem;

/** Brings the coordinates of a file into the project's system and heights. */
final class Placer
{
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
            $findings = !$reading->mapping->isGeographic() && ('project' === $meaning->frame || 'local' === $meaning->frame) ? [] : [new Finding(Finding::ERROR, null, 'a plane project takes plane coordinates only; give the project a system first, then bring this file')];

            return new Placement('local', $records, [], $findings);
        }
        if ($reading->mapping->isGeographic() && ('local' === $meaning->frame || str_starts_with($meaning->frame, 'localization:'))) {
            return new Placement('global', $records, [], [new Finding(Finding::ERROR, null, 'latitudes and longitudes are known on the earth, not locally; say on which datum they are')]);
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
        $geographic = $reading->mapping->isGeographic();
        $from = match (true) {
            'project' === $meaning->frame => $system,
            $geographic => $this->references->system($project->id(), $meaning->frame) ?? $system,
            default => $this->references->projected($project->id(), $meaning->frame),
        };
        $extent = $this->references->extent($project);
        $whereabouts = new Whereabouts($system, $extent);
        $columns = new ColumnDoubt($whereabouts, $from, $geographic);
        $records = $columns->answered($reading->reader->records, $meaning);
        [$asks, $offer] = $columns->asks($records, $meaning);
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
        if (!isset($asks['swap']) && !isset($asks['sign'])) {
            // Until heights are answered the place alone is worked out.
            $source = 'geoid' === $heights && '' !== $geoid ? $this->references->geoid($project->id(), $geoid) : null;
            if (null !== $source) {
                ProjectReference::fits($source, $from);
            }
            $known = null !== $heights && !isset($asks['geoid']);
            $same = !$geographic && 'project' === $meaning->frame && (!$known || $source?->name === $target?->name);
            if (!$same) {
                $area = $extent ?? self::area($from, $geographic, $records);
                $choose = fn (): array => SystemDescription::candidates($this->references->finder($project->id())->ways(ProjectReference::spatial($from), ProjectReference::spatial($system), true), $area);
                try {
                    $movement = Movement::between($this->references, $project, $from, $known ? $source : null, $system, $known ? $target : null, $area, '' === $meaning->operation ? null : $meaning->operation);
                    $records = self::follow($movement, $geographic, $records);
                } catch (UnusableInput $e) {
                    return new Placement('global', $records, $asks, [new Finding(Finding::ERROR, null, $e->reason)], $offer, '/operation' === $e->where ? $choose() : []);
                }
                $ways = '' === $meaning->operation ? [] : $choose();
            }
            $where = $whereabouts->doubt($records);
            if (null !== $where && !$meaning->far) {
                $asks['far'] = $where.'. Is that meant?';
            }
        }

        return new Placement('global', $records, $asks, [], $offer, $ways ?? []);
    }

    /**
     * @param list<array<string, mixed>> $records
     *
     * @return list<array<string, mixed>> with their places and heights in the project's
     */
    private static function follow(Movement $movement, bool $geographic, array $records): array
    {
        foreach ($records as $i => $r) {
            $h = null === $r['h'] ? null : (float) $r['h'];
            [$e, $n, $h] = $geographic
                ? $movement->fromDegrees((string) $r['name'], (float) $r['lat'], (float) $r['lon'], $h)
                : $movement->apply((string) $r['name'], (float) $r['e'], (float) $r['n'], $h);
            $records[$i] = ['e' => $e, 'n' => $n, 'h' => $h] + $r;
        }

        return $records;
    }

    /**
     * Where the places of a file lie, degrees from Greenwich, as far as its system can say.
     *
     * @param list<array<string, mixed>> $records
     */
    private static function area(HorizontalSystem $from, bool $geographic, array $records): ?Area
    {
        $lats = $lons = [];
        foreach ($records as $r) {
            try {
                [$lat, $lon] = $geographic ? [deg2rad((float) $r['lat']), deg2rad((float) $r['lon'] + $from->datum->primeMeridian)] : $from->toGeographic((float) $r['e'], (float) $r['n']);
            } catch (\DomainException) {
                continue; // named when it is to follow
            }
            $lats[] = rad2deg($lat);
            $lons[] = fmod(rad2deg($lon) + 900.0, 360.0) - 180.0;
        }

        return [] === $lats ? $from->area : Area::around($lats, $lons);
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
}
