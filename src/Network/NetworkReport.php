<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Results;
use App\Network\View\ComparisonView;
use App\Network\View\NetworkView;
use App\Network\View\RowView;
use App\Network\View\RunView;
use App\Network\View\ShiftView;
use App\Network\View\StationView;
use App\Project\Project;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;

/** The network stage as it is shown and reported: observations with their newest statistics, stations, verdict, comparison. */
final class NetworkReport
{
    private const COMPONENT_BITS = ['dx' => 1, 'dy' => 2, 'dz' => 4];

    public function __construct(
        private readonly Connection $connection,
        private readonly Results $results,
        private readonly FileStore $store,
    ) {
    }

    public function of(Project $project): NetworkView
    {
        $runs = $this->results->runs($project, Adjuster::SLOT);
        $document = [] === $runs ? null : $this->store->getJson($runs[0]['output']);
        $stale = $this->results->stale($project)[Adjuster::SLOT] ?? [];
        $confidence = (float) ($runs[0]['settings']['confidence'] ?? 0.95);
        $stations = null === $document ? [] : $this->stations($project, $document, isset($runs[1]) ? $this->store->getJson($runs[1]['output']) : null);
        $rows = $this->rows($project, $document);
        $kinds = null === $document ? [] : Verdict::kinds($document['groups'], $confidence);
        $setups = null === $document ? [] : Verdict::setups(array_values(array_map(
            static fn (RowView $r): array => ['kind' => $r->kind, 'setup' => 'vector' === $r->kind ? ('' === $r->set ? $r->at : $r->set) : $r->at.'/'.$r->set, 'standardized' => $r->standardized, 'redundancy' => (float) $r->redundancy],
            array_filter($rows, static fn (RowView $r): bool => $r->used && null !== $r->redundancy),
        )), $confidence);
        $flagged = \count(array_filter($rows, static fn (RowView $r): bool => $r->flagged && $r->used));
        $runViews = [];
        foreach ($runs as $i => $run) {
            [$headline, $sentences] = 0 === $i ? Verdict::words((int) $run['run'], $run['summary'], $kinds, $setups, $flagged, $confidence) : [\sprintf('Adjustment %d', $run['run']), []];
            $runViews[] = self::run($run, $headline, $sentences);
        }
        $largest = null;
        $largestAt = null;
        foreach ($stations as $s) {
            if (null === $largest || $s->semiMajor > $largest) {
                $largest = $s->semiMajor;
                $largestAt = $s->name;
            }
        }

        return new NetworkView(
            NetworkSettings::of($project), $rows, $stations, $kinds, $setups, $runViews, $stale, $this->comparison($runs, $document),
            $this->isAccepted($project, $runs), $largest, $largestAt,
        );
    }

    /** @param list<array<string, mixed>> $runs */
    private function isAccepted(Project $project, array $runs): bool
    {
        $accepted = $this->results->current($project)[AcceptCoordinates::SLOT] ?? null;

        return null !== $accepted && [] !== $runs && ($accepted['inputs']['result:'.Adjuster::SLOT] ?? null) === $runs[0]['output'];
    }

    /**
     * @param array<string, mixed> $run
     * @param list<string>         $sentences
     */
    private static function run(array $run, string $headline, array $sentences): RunView
    {
        $s = $run['summary'];
        $r = (int) $s['redundancy'];

        return new RunView(
            (int) $run['id'], (int) $run['run'], strtr($run['created_at'], ' ', 'T').'Z', $run['author_name'], $s['test']['passed'] ?? null, $s['converged'], $s['varianceFactor'],
            isset($s['test']) ? $s['test']['lower'] / $r : null, isset($s['test']) ? $s['test']['upper'] / $r : null, $r, (int) $s['observations'], (int) $s['stations'], (int) $s['aside'],
            (bool) ($run['settings']['free'] ?? false), (float) ($run['settings']['confidence'] ?? 0.95), $headline, $sentences, $s['warnings'],
        );
    }

    /**
     * @param ?array<string, mixed> $document
     *
     * @return list<RowView>
     */
    private function rows(Project $project, ?array $document): array
    {
        $statistics = $place = [];
        foreach ($document['observations'] ?? [] as $row) {
            $statistics[$document['ids'][$row['index']]][$row['component'] ?? ''] = $row;
        }
        foreach ($document['stations'] ?? [] as $s) {
            $place[$s['id']] = $s;
        }
        $views = [];
        foreach ($this->connection->iterateAssociative('SELECT o.*, f.name AS file FROM observation o LEFT JOIN survey_file f ON f.id = o.file_id WHERE o.project_id = ? ORDER BY o.id', [$project->id()]) as $o) {
            foreach ('vector' === $o['kind'] ? ['dx' => 'v1', 'dy' => 'v2', 'dz' => 'v3'] : ['' => 'v1'] as $component => $column) {
                $s = $statistics[$o['id']][$component] ?? null;
                $isUsed = ((int) $o['used'] & (self::COMPONENT_BITS[$component] ?? 1)) > 0;
                $ground = null;
                if (isset($s['residual'])) {
                    $ground = 1000.0 * $s['residual'];
                    if (\in_array($o['kind'], ['direction', 'zenith', 'azimuth', 'angle'], true)) {
                        $a = $place[$o['from_name']] ?? null;
                        $b = $place[$o['to_name']] ?? null;
                        $ground = null === $a || null === $b ? null : 1000.0 * deg2rad($s['residual']) * hypot($a['e'] - $b['e'], $a['n'] - $b['n']);
                    }
                }
                $views[] = new RowView(
                    (int) $o['id'], '' === $component ? null : $component, $o['kind'], (string) $o['set_name'], (string) $o['from_name'], (string) $o['to_name'], (float) $o[$column],
                    $s['residual'] ?? null, $ground, $s['sd'] ?? (null === $o['sd'] ? null : (float) $o['sd']), $s['standardized'] ?? null, $s['redundancyNumber'] ?? null,
                    $s['minimalDetectable'] ?? null, $s['externalEffect'] ?? null, $s['flagged'] ?? false, $isUsed, (string) $o['reason'], $o['aside_by'],
                    null === $o['aside_at'] ? null : strtr($o['aside_at'], ' ', 'T').'Z', null === $o['file_id'] ? null : (int) $o['file_id'], $o['file'], null === $o['line'] ? null : (int) $o['line'],
                );
            }
        }

        return $views;
    }

    /**
     * @param array<string, mixed>  $document
     * @param ?array<string, mixed> $previous
     *
     * @return list<StationView>
     */
    private function stations(Project $project, array $document, ?array $previous): array
    {
        $points = [];
        foreach ($this->connection->fetchAllAssociative('SELECT name, role, held FROM point WHERE project_id = ?', [$project->id()]) as $p) {
            $points[(string) $p['name']] = $p;
        }
        $before = array_column($previous['stations'] ?? [], null, 'id');

        return array_values(array_map(static function (array $s) use ($points, $before): StationView {
            $b = $before[$s['id']] ?? null;

            return new StationView(
                (string) $s['id'], $s['e'], $s['n'], $s['h'], $s['sd']['e'], $s['sd']['n'], $s['sd']['h'], $s['ellipse']['semiMajor'], $s['ellipse']['semiMinor'], $s['ellipse']['bearing'],
                'control' === ($points[$s['id']]['role'] ?? '') ? (string) $points[$s['id']]['held'] : '', 'control' === ($points[$s['id']]['role'] ?? ''),
                null === $b ? null : $s['e'] - $b['e'], null === $b ? null : $s['n'] - $b['n'], null === $b ? null : $s['h'] - $b['h'],
            );
        }, array_filter($document['stations'], static fn (array $s): bool => null !== $s['e'])));
    }

    /**
     * @param list<array<string, mixed>> $runs
     * @param ?array<string, mixed>      $document
     */
    private function comparison(array $runs, ?array $document): ?ComparisonView
    {
        if (null === $document || !isset($runs[1])) {
            return null;
        }
        $before = array_column($this->store->getJson($runs[1]['output'])['stations'], null, 'id');
        $shifts = [];
        $largest = 0.0;
        foreach ($document['stations'] as $s) {
            $b = $before[$s['id']] ?? null;
            if (null !== $b && null !== $s['e'] && null !== $b['e']) {
                $shift = new ShiftView((string) $s['id'], $s['e'] - $b['e'], $s['n'] - $b['n'], $s['h'] - $b['h']);
                $largest = max($largest, sqrt($shift->e ** 2 + $shift->n ** 2 + $shift->h ** 2));
                $shifts[] = $shift;
            }
        }

        return new ComparisonView((int) $runs[1]['run'], $runs[1]['summary']['varianceFactor'], $runs[1]['summary']['test']['passed'] ?? null, $shifts, $largest);
    }
}
