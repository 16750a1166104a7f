<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Account\UserRepository;
use App\Ledger\Images;
use App\Ledger\JournalFile;
use App\Ledger\LedgerEntryRepository;
use App\Project\Project;
use App\Project\ProjectRepository;
use App\Result\ContentVersions;
use App\Store\FileStore;
use Psr\Clock\ClockInterface;

/**
 * A project as one open archive (mensura-archive/1, docs/formats.md). Rows are numbered from 1 in it, table by table, so that
 * the archive of a project that was brought in is the same, byte for byte, as the one it came from.
 */
final class ArchiveWriter
{
    public const FORMAT = 'mensura-archive/1';
    public const MANIFEST = 'archive.json';
    public const JSON = \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE;
    private const HASH = '/(?<![0-9a-f])[0-9a-f]{64}(?![0-9a-f])/';

    public function __construct(
        private readonly ArchivedTables $tables,
        private readonly RowRepository $rows,
        private readonly Renumbering $renumbering,
        private readonly ContentVersions $versions,
        private readonly ProjectRepository $projects,
        private readonly LedgerEntryRepository $ledger,
        private readonly UserRepository $users,
        private readonly FileStore $store,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @param \Closure(string, float): void $report
     *
     * @return array<string, mixed> its manifest
     */
    public function write(Project $project, string $path, \Closure $report): array
    {
        $sink = ArchiveSink::zip($path);
        $manifest = $this->projects->atOneMoment(function () use ($project, $sink, $report): array {
            return $this->into($sink, $this->projects->fresh($project->id()), $report);
        });
        $sink->close($manifest);

        return $manifest;
    }

    /**
     * Within a transaction of the caller's.
     *
     * @param \Closure(string, float): void $report
     * @param array<string, list<string>>   $columns of tables, where it is to be written as another archive was
     *
     * @return array<string, mixed> the manifest
     */
    public function into(ArchiveSink $sink, Project $project, \Closure $report, array $columns = []): array
    {
        $report('numbering the rows', 0.05);
        [$ids, $results] = $this->numbered($project);
        $people = $this->people(array_keys($ids[ArchivedTables::PEOPLE] ?? []));
        unset($ids[ArchivedTables::PEOPLE]);
        $numbers = [ArchivedTables::PEOPLE => $people[0]];
        foreach ($ids as $table => $of) {
            ksort($of);
            $numbers[$table] = array_flip([0, ...array_keys($of)]);
        }
        $number = static fn (string $table, int $n): int => $numbers[$table][$n] ?? 0;
        $files = [];
        $outputs = $this->outputs($sink, $results, $number, $files);
        $current = [];
        $links = new ResultLinks($outputs, function (string $what, string $version) use ($project, &$current): string {
            return $version === ($current[$what] ??= $this->versions->of($project, $what)) ? ResultLinks::NOW : $version;
        });
        $change = new RowChange($this->renumbering, $number, [$links]);
        $journals = [];
        $entries = $this->ledger->findBy(['project' => $project->id()], ['seq' => 'ASC']);
        foreach ($entries as $i => $entry) {
            $report('the ledger', 0.1 + 0.4 * $i / \count($entries));
            $journals[$entry->id()] = $sink->lines("ledger/{$entry->seq}.jsonl", $this->journal($entry->changes, $change, $files));
        }
        $counts = [];
        foreach ($this->tables->names() as $i => $table) {
            $report('the table '.$table, 0.5 + 0.3 * $i / \count($this->tables->names()));
            $of = $columns[$table] ?? $this->tables->columns($table);
            $counts[$table] = 0;
            $lines = $this->lines($project, $table, $of, $change, $journals, $files, $counts[$table]);
            $sink->lines("tables/$table.jsonl", $lines);
        }
        $this->files($sink, array_diff_key($files, array_flip($outputs)), $report);

        return [
            'format' => self::FORMAT, 'written' => $this->clock->now()->format(\DATE_ATOM),
            'project' => ['name' => $project->name(), 'reference' => $project->reference(), 'heights' => $project->heights()],
            'people' => $people[1], 'rows' => $counts, 'numbers' => array_map(\count(...), $ids),
            'fingerprint' => self::fingerprint($sink->entries(), $people[1]), 'entries' => $sink->entries(),
        ];
    }

    /**
     * One hash of all that an archive holds.
     *
     * @param array<string, array{sha256: string, bytes: int}> $entries
     * @param list<string>                                     $people
     */
    public static function fingerprint(array $entries, array $people): string
    {
        ksort($entries, \SORT_STRING);
        $hashes = array_map(static fn (string $path, array $e): string => $path.' '.$e['sha256'], array_keys($entries), $entries);

        return hash('sha256', implode("\n", [...$hashes, ...$people]));
    }

    /**
     * Every number there is, of rows that are there and of those that were.
     *
     * @return array{array<string, array<int, true>>, array<string, string>} by table; kinds of results by their output
     */
    private function numbered(Project $project): array
    {
        $ids = $results = [];
        foreach ($this->tables->names() as $table) {
            $refers = array_keys($this->tables->refers($table), ArchivedTables::PEOPLE, true);
            $columns = 'result' === $table ? ['kind', 'output'] : $refers;
            $ids[$table] = [];
            foreach ($this->rows->of($table, [] === $columns ? ['id'] : $columns, $project->id()) as $id => $values) {
                $ids[$table][$id] = true;
                if ('result' === $table) {
                    $results[(string) $values[1]] = (string) $values[0];
                } elseif ([] !== $refers) {
                    $ids[ArchivedTables::PEOPLE][(int) $values[0]] = true;
                }
            }
        }
        foreach ($this->ledger->findBy(['project' => $project->id()], ['seq' => 'ASC']) as $entry) {
            foreach ((new JournalFile($this->store->localPath($entry->changes)))->images() as $images) {
                $refers = $this->tables->has($images->table) ? $this->tables->refers($images->table) : [];
                $who = array_search(array_search(ArchivedTables::PEOPLE, $refers, true), $images->columns, true);
                foreach ($images->rows as [$id, $before, $after]) {
                    $ids[$images->table][$id] = true;
                    if (false !== $who) {
                        $ids[ArchivedTables::PEOPLE][(int) ($after ?? $before ?? [])[$who]] = true;
                    }
                    if ('result' === $images->table) {
                        $values = array_combine($images->columns, $after ?? $before ?? []);
                        $results[(string) $values['output']] = (string) $values['kind'];
                    }
                }
            }
        }

        return [$ids, $results];
    }

    /**
     * Sign-in names stay in the office; an archive knows people by what they are called.
     *
     * @param list<int> $ids
     *
     * @return array{array<int, int>, list<string>} numbers by account, and names
     */
    private function people(array $ids): array
    {
        $names = [];
        foreach ($this->users->findBy(['id' => $ids]) as $user) {
            $names[$user->id()] = $user->name();
        }
        uksort($names, static fn (int $a, int $b): int => [$names[$a], $a] <=> [$names[$b], $b]);

        return [array_flip([0, ...array_keys($names)]), array_values($names)];
    }

    /**
     * Outputs in the store that hold numbers themselves.
     *
     * @param array<string, string>      $results kinds by output
     * @param \Closure(string, int): int $number
     * @param array<string, true>        $files   takes hashes of further files
     *
     * @return array<string, string> the hash each has in the archive
     */
    private function outputs(ArchiveSink $sink, array $results, \Closure $number, array &$files): array
    {
        $outputs = [];
        foreach ($results as $output => $kind) {
            if ([] !== $paths = $this->renumbering->output($kind)) {
                $bytes = FileStore::json((array) $this->renumbering->within($this->store->getJson((string) $output), $paths, $number));
                $outputs[(string) $output] = hash('sha256', $bytes);
                $sink->bytes('files/'.$outputs[(string) $output], $bytes);
            }
        }

        return $outputs;
    }

    /**
     * @param array<string, true> $files
     *
     * @return iterable<string>
     */
    private function journal(string $changes, RowChange $change, array &$files): iterable
    {
        foreach ((new JournalFile($this->store->localPath($changes)))->images() as $images) {
            $rows = [];
            foreach ($images->rows as [$id, $before, $after]) {
                $rows[] = [
                    $change->number($images->table, $id), null === $before ? null : $change->row($images->table, $images->columns, $before),
                    null === $after ? null : $change->row($images->table, $images->columns, $after),
                ];
            }
            $line = (new Images($images->table, $images->columns, $rows))->toLine();
            self::note($line, $files);
            yield $line;
        }
    }

    /**
     * @param list<string>        $columns
     * @param array<int, string>  $journals hashes of what the entries changed, by entry
     * @param array<string, true> $files
     *
     * @return iterable<string>
     */
    private function lines(
        Project $project, string $table, array $columns, RowChange $change, array $journals, array &$files, int &$count,
    ): iterable {
        yield json_encode(['id', ...$columns], self::JSON)."\n";
        $changes = 'ledger_entry' === $table ? array_search('changes', $columns, true) : false;
        foreach ($this->rows->of($table, $columns, $project->id()) as $id => $values) {
            $values = $change->row($table, $columns, $values);
            if (false !== $changes) {
                $values[$changes] = $journals[$id];
            }
            $line = json_encode([$change->number($table, $id), ...$values], self::JSON)."\n";
            if (false === $changes) {
                self::note($line, $files);
            }
            ++$count;
            yield $line;
        }
    }

    /** @param array<string, true> $files */
    private static function note(string $line, array &$files): void
    {
        if (preg_match_all(self::HASH, $line, $found) > 0) {
            foreach ($found[0] as $hash) {
                $files[$hash] = true;
            }
        }
    }

    /**
     * @param array<string, true>           $files
     * @param \Closure(string, float): void $report
     */
    private function files(ArchiveSink $sink, array $files, \Closure $report): void
    {
        ksort($files, \SORT_STRING);
        $i = 0;
        foreach (array_keys($files) as $hash) {
            $report('the files', 0.8 + 0.2 * $i++ / \count($files));
            if ($this->store->has((string) $hash)) {
                $sink->file('files/'.$hash, $this->store->localPath((string) $hash), (string) $hash);
            }
        }
    }
}
