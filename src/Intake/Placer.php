<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Format\Reading;
use App\Project\Project;
use App\Reference\Localizations;
use App\Reference\Movement;
use App\Reference\ProjectReference;
use App\Reference\Side;
use App\Reference\Step;
use App\Reference\SystemDescription;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\HorizontalSystem;

/** Brings the coordinates of a file into the project's system and heights. */
final class Placer
{
    /** Their points stay in the file; in the project's system they have its heights too. */
    private const STAY = [FileKind::Cloud, FileKind::Trajectory];
    private const FOOT = 0.3048;

    public function __construct(private readonly ProjectReference $references, private readonly Localizations $localizations)
    {
    }

    public function place(Project $project, Reading $reading, Meaning $meaning): Placement
    {
        $placed = $this->placed($project, $reading, $meaning);
        $asks = $placed->asks;
        // Where the points come to lie in the project as they are read, that answers which of the two is the easting.
        $isSeen = 'global' === $placed->known && null !== $this->references->extent($project) && !isset($asks['swap'], $asks['far']);
        if ($reading->asksOrder() && !isset($asks['swap']) && (!$isSeen || $project->isPlane())) {
            $asks = ['order' => 'Which of the two is the easting? Neither headings nor values say.'] + $asks;
        }
        $role = new ControlRole($meaning);
        if ($role->isAsked($reading)) {
            $asks['control'] = 'These marks state neither held nor a standard deviation. What are they?';
        }

        return $placed->with($role->applied($reading, $placed->records), $asks);
    }

    /** Whether the places of a file may be in any system: those of marks, and of drawings that say theirs. */
    public static function asksWhere(Reading $reading): bool
    {
        $isPlaced = \in_array($reading->kind(), [FileKind::Design, FileKind::Photo, FileKind::Flight, ...self::STAY], true)
            && [] !== $reading->points();

        return $reading->kind()->hasMarks() || $isPlaced;
    }

    /** "ellipsoidal" or "geoid", as the file says, or as the project has them that it is said to lie in; null where nothing says. */
    public static function heightsSaid(Project $project, Reading $reading, Meaning $meaning): ?string
    {
        $isOfProject = 'project' === $meaning->frame && self::staysInFile($reading->kind());

        return $reading->heightsSaid() ?? ($isOfProject ? ($project->hasGeoidHeights() ? 'geoid' : 'ellipsoidal') : null);
    }

    public static function staysInFile(FileKind $kind): bool
    {
        return \in_array($kind, self::STAY, true);
    }

    private function placed(Project $project, Reading $reading, Meaning $meaning): Placement
    {
        $records = $reading->points();
        $system = $this->references->of($project);
        $isLocal = 'local' === $meaning->frame;
        // Where a photo was taken a plane project cannot show.
        if (!self::asksWhere($reading) || null === $system && FileKind::Photo === $reading->kind()) {
            return new Placement('global', $records);
        }
        $isTurned = true === $meaning->swap || !\in_array($meaning->sign, ['', 'none'], true);
        if ($isTurned && (isset($reading->kept()['features']) || self::staysInFile($reading->kind()))) {
            $why = 'its places are taken as the file has them: correct the order or the sign of its coordinates where it was written';

            return Placement::impossible('global', $records, $why);
        }
        if (null === $system) {
            $isUsable = !$reading->isGeographic() && ('project' === $meaning->frame || $isLocal);
            $why = 'a plane project takes plane coordinates only; give the project a system first, then bring this file';

            return $isUsable ? new Placement('local', $records) : Placement::impossible('local', $records, $why);
        }
        if ($reading->isGeographic() && ($isLocal || str_starts_with($meaning->frame, 'localization:'))) {
            $why = 'latitudes and longitudes are known on the earth, not locally; say on which datum they are';

            return Placement::impossible('global', $records, $why);
        }
        if ($isLocal) {
            return new Placement('local', $records);
        }
        try {
            return str_starts_with($meaning->frame, 'localization:')
                ? $this->localized($project, (int) substr($meaning->frame, 13), $records)
                : $this->moved($project, $system, $reading, $meaning);
        } catch (UnusableInput $e) {
            // A photo is none the worse where its place cannot be brought over.
            return FileKind::Photo === $reading->kind()
                ? new Placement('global', []) : Placement::impossible('global', $records, $e->reason);
        }
    }

    private function moved(Project $project, HorizontalSystem $system, Reading $reading, Meaning $meaning): Placement
    {
        $geographic = $reading->isGeographic();
        $from = match (true) {
            'project' === $meaning->frame => $system,
            $geographic => $this->references->system($project->id(), $meaning->frame) ?? $system,
            default => $this->references->projected($project->id(), $meaning->frame),
        };
        $extent = $this->references->extent($project);
        $whereabouts = new Whereabouts($system, $extent);
        $columns = new ColumnDoubt($whereabouts, $from, $geographic);
        $records = $columns->answered($reading->points(), $meaning);
        [$asks, $offer] = $columns->asks($records, $meaning);
        $heights = '' !== $meaning->heights ? $meaning->heights : self::heightsSaid($project, $reading, $meaning);
        $hasHeights = [] !== array_filter($records, static fn (PointRecord $r): bool => null !== $r->h);
        if ($hasHeights && null === $heights) {
            $asks['heights'] = 'Are these heights ellipsoidal, or above the geoid?';
        }
        $geoid = '' !== $meaning->geoid ? $meaning->geoid : ($project->hasGeoidHeights() ? $project->geoid() : '');
        if ($hasHeights && 'geoid' === $heights && '' === $geoid) {
            $asks['geoid'] = 'Above which geoid are they? The project has ellipsoidal heights.';
        }
        if (isset($asks['swap']) || isset($asks['sign'])) {
            return new Placement('global', $records, $asks, [], $offer);
        }
        // Until heights are answered the place alone is worked out.
        $source = 'geoid' === $heights && '' !== $geoid ? $this->references->geoid($project->id(), $geoid) : null;
        if (null !== $source) {
            ProjectReference::fits($source, $from);
        }
        $target = $this->references->geoidOf($project);
        $known = null !== $heights && !isset($asks['geoid']);
        $same = !$geographic && 'project' === $meaning->frame && (!$known || $source?->name === $target?->name);
        $ways = [];
        $step = null;
        if (!$same) {
            $area = $extent ?? self::area($from, $geographic, $records);
            $choose = fn (): array => SystemDescription::candidates(
                $this->references->finder($project->id())->ways(ProjectReference::spatial($from), ProjectReference::spatial($system), true),
                $area,
            );
            try {
                $movement = Movement::between(
                    $this->references->finder($project->id()), new Side($from, $known ? $source : null),
                    new Side($system, $known ? $target : null),
                    $area, '' === $meaning->operation ? null : $meaning->operation,
                );
                $records = self::follow($movement, $geographic, $records);
                $step = new Step(
                    self::side('project' === $meaning->frame ? $project->reference() : $meaning->frame, $known ? $heights : null, $geoid),
                    self::side($project->reference(), $known ? $project->heights() : null, $project->geoid()),
                    '' === $meaning->operation ? $movement->transformation() : $meaning->operation, degrees: $geographic,
                );
            } catch (UnusableInput $e) {
                $fault = [new Finding(Finding::ERROR, null, $e->reason)];

                return new Placement('global', $records, $asks, $fault, $offer, '/operation' === $e->where ? $choose() : []);
            }
            $ways = '' === $meaning->operation ? [] : $choose();
        }
        $where = $whereabouts->doubt($records);
        if (null !== $where && !$meaning->far) {
            $asks['far'] = $where.self::feet($whereabouts, $records).'. Is that meant?';
        }

        return new Placement('global', $records, $asks, [], $offer, $ways, $step);
    }

    /** @param list<PointRecord> $records */
    private static function feet(Whereabouts $whereabouts, array $records): string
    {
        $scaled = array_map(static fn (PointRecord $r): PointRecord => $r->at(
            self::FOOT * (float) $r->e, self::FOOT * (float) $r->n, $r->h,
        ), $records);

        $words = '; these look like feet read as metres: write them in metres, or say a system in feet';

        return null === $whereabouts->doubt($scaled) ? $words : '';
    }

    /**
     * @param ?string $heights "ellipsoidal" or "geoid"; null where there are none
     *
     * @return array{reference: string, heights: string, geoid: string}
     */
    private static function side(string $reference, ?string $heights, string $geoid): array
    {
        return ['reference' => $reference, 'heights' => $heights ?? 'ellipsoidal', 'geoid' => $geoid];
    }

    /**
     * @param list<PointRecord> $records
     *
     * @return list<PointRecord> with their places and heights in the project's
     */
    private static function follow(Movement $movement, bool $geographic, array $records): array
    {
        return array_map(static fn (PointRecord $r): PointRecord => $r->at(...($geographic
            ? $movement->fromDegrees($r->name, (float) $r->lat, (float) $r->lon, $r->h)
            : $movement->apply($r->name, (float) $r->e, (float) $r->n, $r->h))), $records);
    }

    /**
     * Where the places of a file lie, degrees from Greenwich, as far as its system can say.
     *
     * @param list<PointRecord> $records
     */
    private static function area(HorizontalSystem $from, bool $geographic, array $records): ?Area
    {
        $lats = $lons = [];
        foreach ($records as $r) {
            try {
                [$lat, $lon] = $geographic
                    ? [deg2rad((float) $r->lat), deg2rad((float) $r->lon + $from->datum->primeMeridian)]
                    : $from->toGeographic((float) $r->e, (float) $r->n);
            } catch (\DomainException) {
                continue; // named when it is to follow
            }
            $lats[] = rad2deg($lat);
            $lons[] = fmod(rad2deg($lon) + 900.0, 360.0) - 180.0;
        }

        return [] === $lats ? $from->area : Area::around($lats, $lons);
    }

    /**
     * @param list<PointRecord> $records
     *
     * @throws UnusableInput
     */
    private function localized(Project $project, int $id, array $records): Placement
    {
        $kept = $this->localizations->read($project, $id);
        if (!$kept->leadsTo($project)) {
            $words = 'the localization "%s" leads to %s, the project is in %s with %s heights';
            throw new UnusableInput('/frame', \sprintf($words, $kept->name, $kept->system, $project->reference(), $project->heights()));
        }

        $onGrid = array_map(
            static fn (PointRecord $r): PointRecord => $r->at(...$kept->toGrid((float) $r->e, (float) $r->n, $r->h)),
            $records,
        );

        return new Placement('global', $onGrid, step: new Step(
            self::side('local', null, ''), self::side($project->reference(), $project->heights(), $project->geoid()), localization: $id,
        ));
    }
}
