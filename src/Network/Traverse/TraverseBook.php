<?php

declare(strict_types=1);

namespace App\Network\Traverse;

use App\Network\Book\BookedSetup;
use App\Network\Book\BookSettings;
use App\Network\Book\StationBook;
use App\Network\MarkPlaces;
use App\Network\NetworkSettings;
use App\Network\Places;
use App\Network\Request\TraverseRequest;
use App\Network\View\TraverseLineView;
use App\Network\View\TraverseStationView;
use App\Network\View\TraverseView;
use App\Project\Project;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Network\AdjustmentResult;
use Mensura\Network\Settings;
use Mensura\TotalStation\ReducedSetup;
use Mensura\Traverse\CompassRule;
use Mensura\Traverse\Leg;
use Mensura\Traverse\RigorousTraverse;
use Mensura\Traverse\Traverse;

/** Traverses of a project: their angles and lengths from the total-station book, balanced by the compass rule and rigorously. */
final readonly class TraverseBook
{
    public function __construct(private ObservationRepository $observations, private MarkPlaces $places)
    {
    }

    public function of(Project $project, TraverseRequest $request): TraverseView
    {
        $places = $this->places->of($project);
        $setups = StationBook::setups($this->observations->rows($project));
        $legs = new ReducedLegs(self::reduced($setups, new StationBook(BookSettings::of($project))), $places);
        $occupied = array_values(array_unique(array_map(static fn (BookedSetup $s): string => $s->station, $setups)));
        $found = (new Lines($legs, $places))->found($occupied);
        $line = [] === $request->stations ? $found[0] ?? null
            : new TraverseLineView(self::orNull($request->back), $request->stations, self::orNull($request->fore));
        if (null === $line) {
            return new TraverseView(null, [], null, $found, null, null, null, null, null, null, null, null, null, null, null, $occupied);
        }
        try {
            return self::balanced($line, $legs, $places, NetworkSettings::core(NetworkSettings::of($project)), $request, $found, $occupied);
        } catch (UnusableInput $e) {
            return new TraverseView(
                $line->back, array_map(static fn (string $s): TraverseStationView => TraverseStationView::named($s), $line->stations),
                $line->fore, $found, null, null, null, null, null, null, null, null, null, null, $e->reason, $occupied,
            );
        }
    }

    /**
     * @param array<string, BookedSetup> $setups
     *
     * @return iterable<array{ReducedSetup, float}>
     */
    private static function reduced(array $setups, StationBook $book): iterable
    {
        foreach ($setups as $setup) {
            if ([] === $setup->reducible()) {
                continue;
            }
            try {
                yield [$book->reduced($setup), $setup->hi];
            } catch (UnusableInput) {
                continue; // the book says why
            }
        }
    }

    /**
     * @param list<TraverseLineView>   $found
     * @param list<string> $occupied
     *
     * @throws UnusableInput
     */
    private static function balanced(
        TraverseLineView $line, ReducedLegs $legs, Places $places, Settings $settings, TraverseRequest $request,
        array $found, array $occupied,
    ): TraverseView {
        $traverse = self::traverse($line, $legs, $places);
        $compass = new CompassRule($traverse);
        [$angleSd, $distanceSd] = self::precision($line, $legs, $compass, $settings);
        $rigorous = RigorousTraverse::adjust($traverse, $compass, $angleSd, $distanceSd);
        $angles = \count(array_filter($traverse->legs, static fn (Leg $l): bool => null !== $l->angle));
        $linear = null === $compass->misclosure ? null : hypot(...$compass->misclosure);

        return new TraverseView(
            $line->back, self::stations($line, $traverse, $compass, $rigorous, $legs), $line->fore, $found,
            $compass->angularMisclosure, null === $compass->angularMisclosure ? null : $request->angular / 3600.0 * sqrt($angles),
            $compass->misclosure[0] ?? null, $compass->misclosure[1] ?? null, $linear,
            null === $linear ? null : $compass->length / $request->ratio, $compass->length, $compass->ratio,
            $rigorous?->varianceFactor, $rigorous->globalTest['passed'] ?? null, null, $occupied,
        );
    }

    /** @throws UnusableInput naming what was not measured, or has no place */
    private static function traverse(TraverseLineView $line, ReducedLegs $legs, Places $places): Traverse
    {
        $names = $line->stations;
        $last = \count($names) - 1;
        $rows = [];
        foreach ($names as $i => $name) {
            $back = 0 === $i ? $line->back : $names[$i - 1];
            $fore = $i === $last ? $line->fore : $names[$i + 1];
            if (null === $back) {
                throw new UnusableInput('/back', \sprintf('%s needs a backsight with known coordinates to start from', $name));
            }
            $angle = null === $fore ? null : $legs->angle($back, $name, $fore);
            if (null !== $fore && null === $angle) {
                throw new UnusableInput('/stations', \sprintf('no set-up on %s sights both %s and %s', $name, $back, $fore));
            }
            $length = $i < $last ? $legs->length($name, $names[$i + 1]) : null;
            if ($i < $last && null === $length) {
                throw new UnusableInput('/stations', \sprintf('no distance was measured between %s and %s', $name, $names[$i + 1]));
            }
            $rows[] = new Leg($name, $angle, $length);
        }
        $start = self::known($places, $names[0] ?? '');
        $end = $places->at($names[$last]);
        // What the traverse is to find has no place to close on, unless it is control.
        $end = null !== $line->fore || $places->isControl($names[$last]) || $names[$last] === $names[0] ? $end : null;
        if (null !== $line->fore && null === $end) {
            throw new UnusableInput('/fore', \sprintf('%s has no coordinates, so no foresight closes the angles there', $names[$last]));
        }

        return new Traverse(
            $start, self::azimuth($start, self::known($places, (string) $line->back)), $rows,
            null === $end ? null : [$end[0], $end[1]],
            null === $line->fore || null === $end ? null : self::azimuth([$end[0], $end[1]], self::known($places, $line->fore)),
        );
    }

    /**
     * Of an angle: two directions by their sights, and centring over a leg of middle length. Of a distance: the instrument's
     * with centring.
     *
     * @return array{float, array{float, float}} degrees; metres, parts per million
     */
    private static function precision(TraverseLineView $line, ReducedLegs $legs, CompassRule $compass, Settings $s): array
    {
        $sights = $count = 0;
        foreach ($line->stations as $i => $name) {
            foreach ([$i > 0 ? $line->stations[$i - 1] : $line->back, $line->stations[$i + 1] ?? $line->fore] as $target) {
                if (null !== $target && $legs->isSighted($name, $target)) {
                    $sights += $legs->sights($name, $target);
                    ++$count;
                }
            }
        }
        $middle = $compass->length / max(1, \count($line->stations) - 1);
        $centring = sqrt(2.0 * $s->targetCentring ** 2 + 4.0 * $s->instrumentCentring ** 2) / $middle;
        [$constant, $ppm] = $s->distanceSd ?? [0.002, 2.0];

        return [
            hypot(\M_SQRT2 * ($s->directionSd ?? 0.0005) / sqrt(max(1.0, $sights / max(1, $count))), rad2deg($centring)),
            [hypot($constant, hypot($s->instrumentCentring, $s->targetCentring)), $ppm],
        ];
    }

    /** @return list<TraverseStationView> */
    private static function stations(
        TraverseLineView $line, Traverse $traverse, CompassRule $compass, ?AdjustmentResult $rigorous, ReducedLegs $legs,
    ): array {
        $rows = array_column($rigorous->stations ?? [], null, 'id');
        $views = [];
        foreach ($traverse->legs as $i => $leg) {
            $row = $rows["row $i"] ?? ([] === $rows ? null : $rows['row 0']);
            $next = $line->stations[$i + 1] ?? null;
            $views[] = new TraverseStationView(
                $leg->id, $leg->angle, $compass->azimuths[$i], $leg->distance,
                null === $next ? null : $legs->thereLessBack($leg->id, $next), $compass->places[$i][0], $compass->places[$i][1],
                $row['e'] ?? null, $row['n'] ?? null, $row['sd']['e'] ?? null, $row['sd']['n'] ?? null,
            );
        }

        return $views;
    }

    /** @return array{float, float} */
    private static function known(Places $places, string $name): array
    {
        [$e, $n] = $places->at($name) ?? throw new UnusableInput('/stations', \sprintf('%s has no coordinates yet', $name));

        return [$e, $n];
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     */
    private static function azimuth(array $from, array $to): float
    {
        return fmod(rad2deg(atan2($to[0] - $from[0], $to[1] - $from[1])) + 360.0, 360.0);
    }

    private static function orNull(string $name): ?string
    {
        return '' === trim($name) ? null : trim($name);
    }
}
