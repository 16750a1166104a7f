<?php

declare(strict_types=1);

namespace App\Network;

use App\Project\Project;
use App\Reference\ProjectReference;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Frame;
use Mensura\Network\NetworkDefinition;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Observation\Station;

/** Brings a project's points and observations into the form the adjustment takes. */
final class NetworkAssembly
{
    public function __construct(private readonly Connection $connection, private readonly ProjectReference $references)
    {
    }

    public function frame(Project $project): Frame
    {
        return $this->references->frame($project);
    }

    /**
     * @return array{NetworkDefinition, list<int>} the network, and the database id of each of its observations
     *
     * @throws UnusableInput
     */
    public function of(Project $project): array
    {
        $observations = $ids = $sources = $names = [];
        $rows = $this->connection->iterateAssociative('SELECT o.*, f.name AS file FROM observation o LEFT JOIN survey_file f ON f.id = o.file_id WHERE o.project_id = ? ORDER BY o.id', [$project->id()]);
        foreach ($rows as $row) {
            $used = (int) $row['used'];
            $kind = ObservationKind::from($row['kind']);
            $isVector = ObservationKind::Vector === $kind;
            $observations[] = new Observation(
                $kind, $row['from_name'], $row['to_name'], $isVector ? null : (float) $row['v1'], null === $row['sd'] ? null : (float) $row['sd'], $row['set_name'], null,
                (float) $row['hi'], (float) $row['ht'], $isVector ? [(float) $row['v1'], (float) $row['v2'], (float) $row['v3']] : null,
                $isVector ? json_decode((string) $row['covariance'], true, 8, \JSON_THROW_ON_ERROR) : null,
                [($used & 1) > 0, ($used & 2) > 0, ($used & 4) > 0],
            );
            $ids[] = (int) $row['id'];
            $sources[] = null === $row['file'] ? 'observation '.$row['id'] : $row['file'].' line '.$row['line'];
            $names[$row['from_name']] = $names[$row['to_name']] = true;
        }
        if ([] === $observations) {
            throw new UnusableInput('', 'there are no observations yet; bring in a total-station or vector file first');
        }
        $stations = [];
        foreach ($this->connection->iterateAssociative('SELECT name, role, known, e, n, h, given_e, given_n, given_h, held, sd_e, sd_n, sd_h FROM point WHERE project_id = ? ORDER BY id', [$project->id()]) as $p) {
            if (!isset($names[$p['name']])) {
                continue;
            }
            unset($names[$p['name']]);
            // Numbers known only locally say nothing about a place on the grid.
            if ('local' === $p['known'] && Project::PLANE !== $project->reference()) {
                $stations[] = new Station((string) $p['name'], null, null, null);
                continue;
            }
            $number = static fn (mixed $v): ?float => null === $v ? null : (float) $v;
            $isControl = 'control' === $p['role'];
            $value = static fn (string $c): ?float => $isControl ? $number($p['given_'.$c]) ?? $number($p[$c]) : $number($p[$c]);
            $held = $isControl ? (string) $p['held'] : '';
            $fixed = [str_contains($held, 'e'), str_contains($held, 'n'), str_contains($held, 'h')];
            $sd = $isControl ? [$number($p['sd_e']), $number($p['sd_n']), $number($p['sd_h'])] : [null, null, null];
            $stations[] = new Station((string) $p['name'], $value('e'), $value('n'), $value('h'), $fixed, [$fixed[0] ? null : $sd[0], $fixed[1] ? null : $sd[1], $fixed[2] ? null : $sd[2]]);
        }
        foreach (array_keys($names) as $name) {
            $stations[] = new Station((string) $name, null, null, null);
        }

        return [new NetworkDefinition($this->frame($project), NetworkSettings::core(NetworkSettings::of($project)), $stations, $observations, $sources), $ids];
    }
}
