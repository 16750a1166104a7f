<?php

declare(strict_types=1);

namespace App\Network\Book;

use App\Network\MarkPlaces;
use App\Network\NetworkSettings;
use App\Network\Places;
use App\Network\View\BookSetupView;
use App\Network\View\BookView;
use App\Project\Project;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;
use Mensura\TotalStation\ReducedTarget;

/** The total-station book as it is shown: what was read beside what it is reduced to. */
final readonly class BookReport
{
    public function __construct(private ObservationRepository $observations, private MarkPlaces $places)
    {
    }

    public function of(Project $project): BookView
    {
        $settings = BookSettings::of($project);
        $book = new StationBook($settings);
        $places = $this->places->of($project);
        $views = [];
        foreach (StationBook::setups($this->observations->rows($project)) as $setup) {
            $views[] = self::view($setup, $book, $settings, $places);
        }

        return new BookView($settings->referenceRefractivity, $settings->wavelength, NetworkSettings::version($project), $views);
    }

    private static function view(BookedSetup $setup, StationBook $book, BookSettings $settings, Places $places): BookSetupView
    {
        $choice = $settings->choice($setup->key);
        $fault = $reduced = null;
        try {
            $reduced = [] === $setup->reducible() ? null : $book->reduced($setup);
            $fault = null === $reduced ? 'no pointing of this set-up has both a direction and a zenith angle' : null;
        } catch (UnusableInput $e) {
            $fault = $e->reason;
        }
        $pointings = [];
        foreach ($setup->pointings as $p) {
            $any = reset($p);
            if (false === $any) {
                continue;
            }
            $pointings[] = [
                'id' => $any->id, 'round' => $any->set.(null === $any->round ? '' : '.'.$any->round),
                'face' => $any->face, 'target' => $any->to,
                'ht' => ($p['zenith'] ?? $any)->ht, 'direction' => ($p['direction'] ?? null)?->v1, 'zenith' => ($p['zenith'] ?? null)?->v1,
                'distance' => ($p['slope-distance'] ?? null)?->v1, 'used' => ($any->used & 1) > 0, 'line' => $any->line,
                'corrected' => [] !== array_filter(array_column($p, 'recorded')),
            ];
        }

        return new BookSetupView(
            $setup->key, $setup->station, $setup->hi, $reduced->rounds ?? 0, $reduced?->collimation, $reduced?->index,
            $reduced?->sdDirection,
            $reduced?->sdZenith, $reduced?->spread, $reduced->ppm ?? 0.0,
            array_map(static fn (ReducedTarget $t): array => self::target($t, $setup, $places), $reduced->targets ?? []), $pointings,
            // Where no second face was read at all there is nothing to warn of pointing by pointing.
            $setup->hasFaces() ? $reduced->warnings ?? [] : [], $fault, $choice['mode'], $choice['precision'], $choice['temperature'],
            $choice['pressure'], $choice['humidity'], $choice['prism'], self::recorded($setup),
        );
    }

    private static function recorded(BookedSetup $setup): string
    {
        $w = $setup->recordedWeather();

        return null === $w ? '' : \sprintf('%.1f °C, %.1f hPa, %.0f %%', $w->temperature, $w->pressure, $w->humidity);
    }

    /**
     * @return array{target: string, ht: float, direction: float, zenith: float, slope: ?float, horizontal: ?float,
     *     heightDifference: ?float, faces: string, pointings: int, ellipsoid: ?float, grid: ?float}
     */
    private static function target(ReducedTarget $t, BookedSetup $setup, Places $places): array
    {
        $reduction = null === $t->horizontal ? null : $places->reduction($setup->station, $t->target, $setup->hi);
        $ellipsoid = null === $reduction ? null : $t->horizontal * $reduction->toEllipsoid;

        return $t->toArray() + ['ellipsoid' => $ellipsoid, 'grid' => null === $reduction ? null : $ellipsoid * $reduction->toGrid];
    }
}
