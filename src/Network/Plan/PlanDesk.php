<?php

declare(strict_types=1);

namespace App\Network\Plan;

use App\Network\Book\MeanPrecision;
use App\Network\MarkPlaces;
use App\Network\NetworkAssembly;
use App\Network\NetworkSettings;
use App\Network\Places;
use App\Network\View\PlanSightView;
use App\Network\View\PlanStationView;
use App\Network\View\PlanView;
use App\Project\Project;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Network\AdjustmentResult;
use Mensura\Network\Frame;
use Mensura\Network\NetworkDefinition;
use Mensura\Network\Settings;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Observation\Station;

/** What a planned network will be worth, from its geometry and the weights of the project alone. */
final readonly class PlanDesk
{
    /** Sights of a set-up that is planned have an orientation of their own. */
    private const SET = 'planned';

    public function __construct(
        private MarkPlaces $places,
        private NetworkAssembly $assembly,
        private ObservationRepository $observations,
    ) {
    }

    public function view(Project $project, NetworkPlan $plan): PlanView
    {
        $settings = NetworkSettings::core(NetworkSettings::of($project));
        $result = null;
        $fault = null;
        $owner = [];
        if ([] !== $plan->sights) {
            try {
                [$network, $owner] = $this->network($project, $plan, $settings);
                $result = (new Adjustment($network, false, true))->run();
            } catch (UnusableInput $e) {
                $fault = $e->reason;
            }
        }

        return new PlanView(
            $plan->marks, $plan->sights, $plan->settings, (string) $plan->version(),
            null === $result ? [] : self::stations($result, $plan),
            null === $result ? [] : self::worth($result, $owner, \count($plan->sights)),
            $result?->redundancy, $settings->confidence, $fault,
        );
    }

    /**
     * @return array{NetworkDefinition, array<int, int>} the network; sight by observation
     *
     * @throws UnusableInput
     */
    private function network(Project $project, NetworkPlan $plan, Settings $settings): array
    {
        $places = $this->places->of($project);
        $observations = [];
        $stations = [];
        if ($plan->settings['withMeasured'] && 0 < $this->observations->countOf($project)) {
            [$measured] = $this->assembly->of($project);
            $observations = $measured->observations;
            foreach ($measured->stations as $station) {
                $place = $places->at($station->id);
                $stations[$station->id] = null === $place ? $station
                    : new Station($station->id, $place[0], $place[1], $place[2], $station->fixed, $station->sd);
            }
        }
        foreach ($plan->marks as $mark) {
            $stations[$mark['name']] ??= new Station(
                $mark['name'], $mark['e'], $mark['n'], $mark['h'], $mark['held'] ? [true, true, true] : [false, false, false],
            );
        }
        $owner = [];
        foreach ($plan->sights as $k => $sight) {
            foreach ([$sight['from'], $sight['to']] as $name) {
                $stations[$name] ??= self::known($name, $places);
            }
            foreach (self::observed($sight, $stations, $places->frame, $plan, $settings) as $observation) {
                $owner[\count($observations)] = $k;
                $observations[] = $observation;
            }
        }

        return [new NetworkDefinition($places->frame, $settings, array_values($stations), $observations), $owner];
    }

    /** Control as the project has it; another mark is to be found anew. */
    private static function known(string $name, Places $places): Station
    {
        $place = $places->at($name)
            ?? throw new UnusableInput('/sights', \sprintf('%s is neither planned nor a mark of the project', $name));

        return $places->isControl($name) ? $places->station($name) : new Station($name, $place[0], $place[1], $place[2] ?? 0.0);
    }

    /**
     * @param array{from: string, to: string, kind: string, rounds: int} $sight
     * @param array<string, Station>                                     $stations
     *
     * @return list<Observation>
     */
    private static function observed(array $sight, array $stations, Frame $frame, NetworkPlan $plan, Settings $settings): array
    {
        $a = $stations[$sight['from']];
        $b = $stations[$sight['to']];
        $horizontal = hypot((float) $b->e - (float) $a->e, (float) $b->n - (float) $a->n);
        if ($horizontal < 0.01) {
            throw new UnusableInput('/sights', \sprintf('%s and %s lie at one place', $a->id, $b->id));
        }
        $root = sqrt($sight['rounds']);
        if ('levelled' === $sight['kind']) {
            $sd = $plan->settings['perKm'] * sqrt($horizontal / 1000.0) / $root;

            return [new Observation(ObservationKind::HeightDifference, $a->id, $b->id, null, $sd)];
        }
        if ('vector' === $sight['kind']) {
            $part = 1e-6 * $plan->settings['vectorPpm'] * $horizontal;
            $sd = [
                hypot($plan->settings['vectorPlan'], $part) / $root,
                hypot($plan->settings['vectorHeight'], $part) / $root,
            ];

            return [new Observation(ObservationKind::Vector, $a->id, $b->id, null, covariance: self::covariance($b, $frame, ...$sd))];
        }
        $slope = hypot($horizontal, (float) $b->h - (float) $a->h);
        $observations = [];
        foreach (['direction', 'zenith', 'slope-distance'] as $kind) {
            $observations[] = new Observation(
                ObservationKind::from($kind), $a->id, $b->id, null,
                MeanPrecision::of($kind, $slope, $horizontal, $root, null, $settings), self::SET,
            );
        }

        return $observations;
    }

    /** @return list<list<float>> of east, north and up, turned to the axes of the frame */
    private static function covariance(Station $at, Frame $frame, float $plan, float $height): array
    {
        $axes = $frame->geometry((float) $at->e, (float) $at->n, (float) $at->h)['axes'];
        $variance = [$plan ** 2, $plan ** 2, $height ** 2];
        $covariance = [];
        for ($i = 0; $i < 3; ++$i) {
            $row = [];
            for ($j = 0; $j < 3; ++$j) {
                $sum = 0.0;
                for ($k = 0; $k < 3; ++$k) {
                    $sum += $axes[3 * $k + $i] * $axes[3 * $k + $j] * $variance[$k];
                }
                $row[] = $sum;
            }
            $covariance[] = $row;
        }

        return $covariance;
    }

    /** @return list<PlanStationView> */
    private static function stations(AdjustmentResult $result, NetworkPlan $plan): array
    {
        $planned = array_flip(array_column($plan->marks, 'name'));
        $views = [];
        foreach ($result->stations as $s) {
            if (null !== $s['e'] && null !== $s['n']) {
                $views[] = new PlanStationView(
                    $s['id'], $s['e'], $s['n'], (float) $s['h'], $s['sd']['e'], $s['sd']['n'], $s['sd']['h'],
                    $s['ellipse']['semiMajor'], $s['ellipse']['semiMinor'], $s['ellipse']['bearing'], isset($planned[$s['id']]),
                );
            }
        }

        return $views;
    }

    /**
     * @param array<int, int> $owner sight by observation
     *
     * @return list<PlanSightView>
     */
    private static function worth(AdjustmentResult $result, array $owner, int $count): array
    {
        $redundancy = $external = array_fill(0, $count, null);
        foreach ($result->observations as $row) {
            $k = $owner[$row['index']] ?? null;
            if (null !== $k) {
                $redundancy[$k] = min($redundancy[$k] ?? 1.0, $row['redundancyNumber']);
                $external[$k] = null === $row['externalEffect'] ? $external[$k] : max($external[$k] ?? 0.0, $row['externalEffect']);
            }
        }

        return array_map(static fn (?float $r, ?float $e): PlanSightView => new PlanSightView($r ?? 0.0, $e), $redundancy, $external);
    }
}
