<?php

declare(strict_types=1);

namespace App\Network\Book;

use App\Network\MarkPlaces;
use App\Network\NetworkSettings;
use App\Network\Places;
use App\Network\Request\SetupPlacesRequest;
use App\Network\View\HeldSightView;
use App\Network\View\PlacedView;
use App\Network\View\SetupPlacesView;
use App\Project\Project;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Network\AdjustmentResult;
use Mensura\Network\NetworkDefinition;
use Mensura\Observation\Observation;
use Mensura\Observation\Station;

/**
 * One set-up on its own: resection of its station from marks that are held, or its orientation on them, and radial points.
 * A small network of the set-up's means, adjusted as the whole one is.
 */
final readonly class SetupPlacement
{
    public function __construct(private ObservationRepository $observations, private MarkPlaces $places)
    {
    }

    /** @throws UnusableInput when there is no such set-up */
    public function of(Project $project, SetupPlacesRequest $request): SetupPlacesView
    {
        $setup = StationBook::setups($this->observations->rows($project))[$request->setup]
            ?? throw new UnusableInput('/setup', 'there is no such set-up in this project');
        $places = $this->places->of($project);
        $settings = NetworkSettings::core(NetworkSettings::of($project));
        $means = [];
        $fault = null;
        try {
            $means = (new StationBook(BookSettings::of($project)))->meansOf($setup, $settings);
        } catch (UnusableInput $e) {
            $fault = $e->reason;
        }
        $targets = array_values(array_unique(array_map(static fn (Observation $o): string => $o->to, $means)));
        $offered = array_values(array_filter($targets, static fn (string $t): bool => null !== $places->at($t)));
        $held = array_values(array_intersect($offered, $request->held));
        if ([] === $held) {
            $held = self::usual($offered, $places, $request->resection ? 2 : 1);
        }
        $isKnown = null !== $places->at($setup->station);
        $resect = $request->resection || !$isKnown;
        $result = null;
        $fault ??= match (true) {
            [] === $means => 'no pointing of this set-up has both a direction and a zenith angle',
            $resect && \count($held) < 2 => 'a resection needs two sighted marks with coordinates',
            [] === $held => 'none of its targets has coordinates, so nothing orients it',
            default => null,
        };
        if (null === $fault) {
            try {
                $stations = [];
                foreach ([$setup->station, ...$targets] as $name) {
                    $isHeld = $name === $setup->station ? !$resect : \in_array($name, $held, true);
                    $stations[] = $isHeld ? $places->station($name) : new Station($name, null, null, null);
                }
                $result = (new Adjustment(new NetworkDefinition($places->frame, $settings, $stations, $means)))->run();
                $fault = $result->converged ? null : 'it does not converge; is a mark held that is another one?';
            } catch (UnusableInput $e) {
                $fault = $e->reason;
            }
        }

        return new SetupPlacesView(
            $setup->station, $resect, $isKnown, $held, $offered,
            null === $result ? [] : self::placed($result, $places, $resect ? $held : [...$held, $setup->station]),
            null === $result ? [] : self::checks($result, $means, $held),
            $result?->redundancy, $result?->varianceFactor, $result->globalTest['passed'] ?? null, $fault,
        );
    }

    /**
     * Control, where there is enough of it, else whatever has coordinates.
     *
     * @param list<string> $offered
     *
     * @return list<string>
     */
    private static function usual(array $offered, Places $places, int $least): array
    {
        $control = array_values(array_filter($offered, $places->isControl(...)));

        return \count($control) >= $least ? $control : $offered;
    }

    /**
     * @param list<string> $held
     *
     * @return list<PlacedView>
     */
    private static function placed(AdjustmentResult $result, Places $places, array $held): array
    {
        $views = [];
        foreach ($result->stations as $s) {
            if (null === $s['e'] || null === $s['n'] || \in_array($s['id'], $held, true)) {
                continue;
            }
            $known = $places->at($s['id']);
            $views[] = new PlacedView(
                $s['id'], $s['e'], $s['n'], $s['h'], $s['sd']['e'], $s['sd']['n'], $s['sd']['h'],
                null === $known ? null : $s['e'] - $known[0], null === $known ? null : $s['n'] - $known[1],
                null === $known || null === $known[2] || null === $s['h'] ? null : $s['h'] - $known[2],
            );
        }

        return $views;
    }

    /**
     * @param list<Observation> $means
     * @param list<string>      $held
     *
     * @return list<HeldSightView>
     */
    private static function checks(AdjustmentResult $result, array $means, array $held): array
    {
        $slopes = $residuals = $flagged = [];
        foreach ($means as $o) {
            if ('slope-distance' === $o->kind->value) {
                $slopes[$o->to] = (float) $o->value;
            }
        }
        foreach ($result->observations as $row) {
            $o = $means[$row['index']];
            // A residual is adjusted less observed.
            $residuals[$o->to][$o->kind->value] = null === $row['residual'] ? null : -$row['residual'];
            $flagged[$o->to] = ($flagged[$o->to] ?? false) || $row['flagged'];
        }
        $views = [];
        foreach ($held as $target) {
            $r = $residuals[$target] ?? [];
            $arm = $slopes[$target] ?? null;
            $on = static fn (?float $degrees, float $sign): ?float => null === $degrees || null === $arm ? null
                : $sign * deg2rad($degrees) * $arm;
            $views[] = new HeldSightView(
                $target, $on($r['direction'] ?? null, 1.0), $r['slope-distance'] ?? null, $on($r['zenith'] ?? null, -1.0),
                $flagged[$target] ?? false,
            );
        }

        return $views;
    }
}
