<?php

declare(strict_types=1);

namespace App\Network;

use App\Network\Book\BookSettings;
use App\Network\Book\StationBook;
use App\Network\Weighting\Groups;
use App\Project\Project;
use App\Reference\ProjectReference;
use App\Survey\ObservationRepository;
use App\Survey\ObservationRow;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use Mensura\Fault\UnusableInput;
use Mensura\Network\NetworkDefinition;
use Mensura\Network\PlaneFrame;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Observation\Station;

/** Brings a project's points and observations into the form the adjustment takes. */
final class NetworkAssembly
{
    public function __construct(
        private readonly ObservationRepository $observations,
        private readonly PointRepository $points,
        private readonly ProjectReference $references,
    ) {
    }

    /**
     * @return array{NetworkDefinition, list<int>} the network, and the database id of each of its observations
     *
     * @throws UnusableInput
     */
    public function of(Project $project): array
    {
        $observations = $rows = $sources = $names = [];
        $factors = NetworkSettings::of($project)->factors;
        foreach ($this->observations->rows($project) as $row) {
            $rows[] = $row;
            $observations[] = self::observation($row);
            $names[$row->from] = $names[$row->to] = true;
            if (null !== $row->back && 'angle' === $row->kind) {
                $names[$row->back] = true;
            }
        }
        if ([] === $observations) {
            throw new UnusableInput('', 'there are no observations yet; bring in a total-station or vector file first');
        }
        $stations = [];
        foreach ($this->points->rows($project) as $p) {
            if (isset($names[$p->name])) {
                unset($names[$p->name]);
                $stations[] = self::station($project, $p);
            }
        }
        foreach (array_keys($names) as $name) {
            $stations[] = new Station((string) $name, null, null, null);
        }
        $settings = NetworkSettings::core(NetworkSettings::of($project));
        [$observations, $ids] = (new StationBook(BookSettings::of($project)))->applied($rows, $observations, $settings);
        $sourceOf = [];
        foreach ($rows as $row) {
            $sourceOf[$row->id] = $row->source();
        }
        foreach ($ids as $i => $id) {
            $sources[] = $sourceOf[$id];
            $factor = Groups::factor($observations[$i], $factors);
            $observations[$i] = 1.0 === $factor ? $observations[$i] : $observations[$i]->with(['sdFactor' => $factor]);
        }
        $observations = array_values($observations);

        // Levels alone need no place on the earth: their marks may have none.
        $isLevels = [] === array_filter($observations, static fn (Observation $o): bool => ObservationKind::HeightDifference !== $o->kind);
        $frame = $isLevels ? new PlaneFrame() : $this->references->frame(
            $project, NetworkSettings::deflection(NetworkSettings::of($project)),
        );

        return [new NetworkDefinition($frame, $settings, $stations, $observations, $sources), $ids];
    }

    private static function observation(ObservationRow $row): Observation
    {
        $kind = ObservationKind::from($row->kind);
        $isVector = ObservationKind::Vector === $kind;

        return new Observation(
            $kind, $row->from, $row->to, $isVector ? null : $row->v1, $row->sd, $row->set,
            ObservationKind::Angle === $kind ? $row->back : null, $row->hi, $row->ht,
            $isVector ? [$row->v1, (float) $row->v2, (float) $row->v3] : null,
            $isVector ? json_decode((string) $row->covariance, true, 8, \JSON_THROW_ON_ERROR) : null,
            [($row->used & 1) > 0, ($row->used & 2) > 0, ($row->used & 4) > 0],
        );
    }

    private static function station(Project $project, PointRow $p): Station
    {
        // Numbers known only locally say nothing about a place on the grid.
        if (Point::LOCALLY === $p->known && !$project->isPlane()) {
            return new Station($p->name, null, null, null);
        }
        if (!$p->isControl()) {
            return new Station($p->name, $p->e, $p->n, $p->h);
        }
        $fixed = [str_contains($p->held, 'e'), str_contains($p->held, 'n'), str_contains($p->held, 'h')];

        return new Station(
            $p->name, $p->givenE ?? $p->e, $p->givenN ?? $p->n, $p->givenH ?? $p->h, $fixed,
            [$fixed[0] ? null : $p->sdE, $fixed[1] ? null : $p->sdN, $fixed[2] ? null : $p->sdH],
        );
    }
}
