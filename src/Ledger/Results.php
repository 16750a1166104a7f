<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Project\Project;
use Doctrine\DBAL\Connection;

/**
 * Computed things and what they rest on. A slot is the place a result has in the project ("network", "surface:3");
 * its newest run counts. Inputs are contents ("observations" => version) or other slots ("result:network" => output).
 *
 * @phpstan-type Row array{id: int, slot: string, kind: string, label: string, run: int, inputs: array<string, string>, settings: array<string, mixed>, summary: array<string, mixed>, output: string, author_name: string, created_at: string}
 */
final class Results
{
    private const CONTENT_NAMES = [
        'reference' => 'the reference system', 'network-settings' => 'the network settings', 'observations' => 'observations',
        'control' => 'control coordinates', 'points' => 'coordinates of points', 'surface' => 'its definition',
    ];

    public function __construct(private readonly Connection $connection, private readonly ContentVersions $versions)
    {
    }

    /**
     * @param list<string>         $contents what it rests on directly
     * @param list<string>         $slots    results it rests on; a slot without a result is left out
     * @param array<string, mixed> $settings
     * @param array<string, mixed> $summary
     */
    public function record(Project $project, Journal $journal, string $slot, string $kind, string $label, array $contents, array $slots, array $settings, array $summary, string $output): int
    {
        $inputs = [];
        foreach ($contents as $content) {
            $inputs[$content] = $this->versions->of($project, $content);
        }
        $current = $this->current($project);
        foreach ($slots as $other) {
            if (isset($current[$other])) {
                $inputs['result:'.$other] = $current[$other]['output'];
            }
        }
        $run = 1 + (int) $this->connection->fetchOne('SELECT MAX(run) FROM result WHERE project_id = ? AND slot = ?', [$project->id(), $slot]);

        return $journal->insert('result', [
            'project_id' => $project->id(), 'slot' => $slot, 'kind' => $kind, 'label' => $label, 'run' => $run,
            'inputs' => json_encode($inputs, \JSON_THROW_ON_ERROR), 'settings' => json_encode($settings, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
            'summary' => json_encode($summary, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), 'output' => $output,
            'author_name' => $journal->authorName, 'created_at' => $journal->at->format('Y-m-d H:i:s'),
        ]);
    }

    /** @return array<string, Row> the newest run of every slot */
    public function current(Project $project): array
    {
        $rows = $this->connection->fetchAllAssociative('SELECT * FROM result WHERE project_id = ? AND id IN (SELECT MAX(id) FROM result WHERE project_id = ? GROUP BY slot) ORDER BY id', [$project->id(), $project->id()]);
        $current = [];
        foreach ($rows as $row) {
            $current[$row['slot']] = self::decoded($row);
        }

        return $current;
    }

    /** @return list<Row> every run of a slot, newest first */
    public function runs(Project $project, string $slot): array
    {
        return array_map(self::decoded(...), $this->connection->fetchAllAssociative('SELECT * FROM result WHERE project_id = ? AND slot = ? ORDER BY id DESC', [$project->id(), $slot]));
    }

    /**
     * Which current results are stale and why, in the order they would be recomputed.
     *
     * @return array<string, list<string>> reasons by slot
     */
    public function stale(Project $project): array
    {
        $current = $this->current($project);
        $versions = [];
        $stale = [];
        foreach (self::inOrder($current) as $slot) {
            $reasons = [];
            foreach ($current[$slot]['inputs'] as $input => $version) {
                if (str_starts_with($input, 'result:')) {
                    $other = substr($input, 7);
                    if (!isset($current[$other])) {
                        $reasons[] = \sprintf('it rests on %s, which is no longer there', $other);
                    } elseif (isset($stale[$other])) {
                        $reasons[] = \sprintf('rests on stale %s', self::named($current[$other]));
                    } elseif ($current[$other]['output'] !== $version) {
                        $reasons[] = \sprintf('newer %s', self::named($current[$other]));
                    }
                    continue;
                }
                $versions[$input] ??= $this->versions->of($project, $input);
                if ($versions[$input] !== $version) {
                    $reasons[] = \sprintf('%s changed', self::CONTENT_NAMES[explode(':', $input)[0]]);
                }
            }
            if ([] !== $reasons) {
                $stale[$slot] = $reasons;
            }
        }

        return $stale;
    }

    /** @param Row $row */
    private static function named(array $row): string
    {
        return lcfirst($row['label']);
    }

    /**
     * @param array<string, Row> $current
     *
     * @return list<string>
     */
    private static function inOrder(array $current): array
    {
        $order = [];
        $visit = static function (string $slot) use (&$visit, &$order, $current): void {
            if (isset($order[$slot]) || !isset($current[$slot])) {
                return;
            }
            foreach (array_keys($current[$slot]['inputs']) as $input) {
                if (str_starts_with($input, 'result:')) {
                    $visit(substr($input, 7));
                }
            }
            $order[$slot] = true;
        };
        foreach (array_keys($current) as $slot) {
            $visit($slot);
        }

        return array_keys($order);
    }

    /**
     * @param array<string, mixed> $row
     *
     * @return Row
     */
    private static function decoded(array $row): array
    {
        foreach (['inputs', 'settings', 'summary'] as $column) {
            $row[$column] = json_decode($row[$column], true, 64, \JSON_THROW_ON_ERROR);
        }

        /* @phpstan-ignore return.type (the columns of the table, decoded) */
        return $row;
    }
}
