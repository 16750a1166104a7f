<?php

declare(strict_types=1);

namespace App\Baselines\Stations;

use App\Baselines\MarkPlace;
use App\Baselines\Occupation;
use App\Baselines\OccupationRepository;
use App\Baselines\View\ReferenceStationView;
use App\Baselines\View\StationsView;
use App\Project\Project;
use App\Reference\ProjectReference;
use Mensura\Fault\UnusableInput;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Gnss\Horizon;

/** The reference stations nearest to a project. */
final class StationPage
{
    private const NEAREST = 8;

    public function __construct(
        private readonly StationClient $client,
        private readonly ProjectReference $references,
        private readonly MarkPlace $places,
        private readonly OccupationRepository $occupations,
    ) {
    }

    public function of(Project $project): StationsView
    {
        $occupations = $this->occupations->of($project);
        $from = [] === $occupations ? null : min(array_map(static fn (Occupation $o): float => $o->from(), $occupations));
        $to = [] === $occupations ? null : max(array_map(static fn (Occupation $o): float => $o->to(), $occupations));
        $here = $this->here($project, $occupations);
        if (null === $here) {
            return new StationsView(
                '', [], $from, $to, 'nothing of this project says where on the earth it lies; bring in control or observations first',
            );
        }
        try {
            $answer = $this->client->stations($here[0], $here[1], self::NEAREST);
        } catch (UnusableInput $e) {
            return new StationsView('', [], $from, $to, $e->reason);
        }
        $stations = [];
        foreach (\is_array($answer['stations'] ?? null) ? $answer['stations'] : [] as $s) {
            $isWhole = \is_array($s)
                && isset($s['id'], $s['lat'], $s['lon'], $s['h'], $s['x'], $s['y'], $s['z'], $s['intervals'], $s['formats']);
            if (!$isWhole) {
                $why = 'the reference-station service answered what is not understood; ask its operator';

                return new StationsView('', [], $from, $to, $why);
            }
            $place = [(float) $s['x'], (float) $s['y'], (float) $s['z']];
            $grid = $this->places->inProject($project, $place);
            $middle = Ellipsoid::grs80()->toCartesian(deg2rad($here[0]), deg2rad($here[1]), (float) $s['h']);
            $stations[] = new ReferenceStationView(
                (string) $s['id'], (float) $s['lat'], (float) $s['lon'], (float) $s['h'], Horizon::distance($place, $middle),
                $grid[0] ?? null, $grid[1] ?? null,
                array_values(array_map(intval(...), (array) $s['intervals'])), array_values(array_map(strval(...), (array) $s['formats'])),
            );
        }

        return new StationsView((string) ($answer['service'] ?? ''), $stations, $from, $to, '');
    }

    /**
     * @param list<Occupation> $occupations
     *
     * @return ?array{float, float} degrees
     */
    private function here(Project $project, array $occupations): ?array
    {
        $extent = $this->references->extent($project);
        if (null !== $extent) {
            return [0.5 * ($extent->south + $extent->north), 0.5 * ($extent->west + $extent->east)];
        }
        foreach ($occupations as $o) {
            if (null !== $place = $o->recorded()->place) {
                $h = Horizon::of($place);

                return [rad2deg($h->latitude), rad2deg($h->longitude)];
            }
        }

        return null;
    }
}
