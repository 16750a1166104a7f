<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Account\User;
use App\Account\UserRepository;
use App\Job\JobRepository;
use App\Ledger\Images;
use App\Project\Project;
use App\Project\ProjectRepository;
use App\Result\ContentVersions;
use App\Store\FileStore;
use Doctrine\ORM\EntityManagerInterface;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;

/**
 * Makes a project what an archive says: every row, file and entry of the ledger under numbers that are free here. When all is
 * in, the project is written as an archive once more, and nothing is kept unless every hash is that of the archive.
 */
final class BringIn
{
    private const LEDGER = 'ledger_entry';

    public function __construct(
        private readonly ArchivedTables $tables,
        private readonly RowRepository $rows,
        private readonly Renumbering $renumbering,
        private readonly ArchiveWriter $writer,
        private readonly ContentVersions $versions,
        private readonly ProjectRepository $projects,
        private readonly UserRepository $users,
        private readonly JobRepository $jobs,
        private readonly EntityManagerInterface $entities,
        private readonly FileStore $store,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @param Project                       $project an empty one
     * @param string                        $name    what it is called from now on
     * @param \Closure(string, float): void $report
     * @param string                        $jobId   marked done in the same transaction
     *
     * @throws UnusableInput when a row does not fit; the project stays empty
     */
    public function into(Project $project, ProjectArchive $archive, string $name, \Closure $report, string $jobId): void
    {
        $report('the files', 0.05);
        $this->files($archive);
        $people = $this->people($archive->people());
        $this->projects->locked($project->id(), function (Project $project) use ($archive, $name, $people, $report, $jobId): void {
            if (!$this->jobs->done($jobId, $this->clock->now())) {
                return; // finished or cancelled elsewhere
            }
            $this->entities->clear();
            $this->rows($project->id(), $archive, $people, $report);
            $this->entities->clear();
            $project = $this->projects->fresh($project->id());
            $report('comparing with the archive', 0.8);
            $this->compare($project, $archive);
            $this->projects->rename($project->id(), $name);
            $this->entities->clear();
        });
    }

    private function files(ProjectArchive $archive): void
    {
        foreach (array_keys($archive->entries()) as $path) {
            if (str_starts_with((string) $path, 'files/')) {
                $this->store->take($archive->extracted((string) $path));
            }
        }
    }

    /**
     * Somebody of that name here, or an account no one can sign in to.
     *
     * @param list<string> $names
     *
     * @return array<int, int> accounts by number in the archive
     */
    private function people(array $names): array
    {
        $people = [];
        foreach ($names as $i => $name) {
            $name = mb_substr($name, 0, 160);
            $user = $this->users->findOneBy(['name' => $name]) ?? new User('archive-'.bin2hex(random_bytes(8)), $name);
            $this->users->save($user);
            $people[$i + 1] = $user->id();
        }

        return $people;
    }

    /**
     * @param array<int, int>               $people
     * @param \Closure(string, float): void $report
     */
    private function rows(int $project, ProjectArchive $archive, array $people, \Closure $report): void
    {
        $base = [];
        foreach ($this->tables->names() as $table) {
            $base[$table] = $this->rows->lastNumber($table);
        }
        $number = static function (string $table, int $n) use ($archive, $base, $people, $project): int {
            $isKnown = ArchivedTables::PEOPLE === $table ? isset($people[$n]) : $n >= 1 && $n <= $archive->highest($table);
            if (!$isKnown) {
                throw new UnusableInput("tables/$table.jsonl", "number $n is referred to and is not there");
            }

            return match ($table) {
                ArchivedTables::PEOPLE => $people[$n], ArchivedTables::PROJECT => $project, default => $base[$table] + $n,
            };
        };
        $outputs = $this->outputs($archive, $number);
        $asItIs = new ResultLinks($outputs, static fn (string $what, string $version): string => $version);
        $change = new RowChange($this->renumbering, $number, [], [$asItIs]);
        foreach ($this->tables->names() as $i => $table) {
            $report('the table '.$table, 0.1 + 0.4 * $i / \count($this->tables->names()));
            if (self::LEDGER !== $table) {
                $this->table($table, $archive, $project, $change);
            }
        }
        $fresh = $this->projects->fresh($project);
        $current = [];
        $links = new ResultLinks([], function (string $what, string $version) use ($fresh, &$current): string {
            return ResultLinks::NOW === $version ? $current[$what] ??= $this->versions->of($fresh, $what) : $version;
        });
        foreach ($this->rows->of('result', ['inputs'], $project) as $id => $values) {
            $this->rows->update('result', ['inputs'], $id, $links->row('result', ['inputs'], $values));
        }
        $report('the ledger', 0.6);
        $this->ledger($archive, $change->with($links));
        foreach ($this->tables->names() as $table) {
            $this->rows->reserve($table, $base[$table] + $archive->highest($table));
        }
    }

    /**
     * Outputs that hold numbers, under the numbers of here.
     *
     * @param \Closure(string, int): int $number
     *
     * @return array<string, string> their hashes here, by those in the archive
     */
    private function outputs(ProjectArchive $archive, \Closure $number): array
    {
        $outputs = [];
        foreach ($this->results($archive) as [$kind, $output]) {
            if (!isset($outputs[$output]) && [] !== $paths = $this->renumbering->output($kind)) {
                $numbered = $this->renumbering->within($this->store->getJson($output), $paths, $number);
                $outputs[$output] = $this->store->putJson((array) $numbered);
            }
        }

        return $outputs;
    }

    /** @return iterable<array{string, string}> kind and output of every run there is or was */
    private function results(ProjectArchive $archive): iterable
    {
        $lines = $archive->lines('tables/result.jsonl');
        $columns = $lines->current();
        foreach ($lines as $i => $values) {
            if ($i > 1) {
                yield self::output('tables/result.jsonl', $columns, $values);
            }
        }
        foreach (array_keys($archive->entries()) as $path) {
            foreach (str_starts_with((string) $path, 'ledger/') ? $archive->lines((string) $path) : [] as $line) {
                foreach ('result' === ($line[0] ?? null) ? $line[2] : [] as $row) {
                    yield self::output((string) $path, $line[1], $row[2] ?? $row[1] ?? []);
                }
            }
        }
    }

    /**
     * @param list<mixed> $columns
     * @param list<mixed> $values
     *
     * @return array{string, string}
     */
    private static function output(string $path, array $columns, array $values): array
    {
        $row = \count($columns) === \count($values) ? array_combine($columns, $values) : [];
        if (!\is_string($row['kind'] ?? null) || !\is_string($row['output'] ?? null)) {
            throw new UnusableInput($path, 'has a result without its kind or its output');
        }

        return [$row['kind'], $row['output']];
    }

    private function table(string $table, ProjectArchive $archive, int $project, RowChange $change): void
    {
        $path = "tables/$table.jsonl";
        if (!$archive->has($path)) {
            return; // written before there was such a table
        }
        $lines = $archive->lines($path);
        $columns = $this->columns($path, $table, $lines->current());
        $lines->next();
        if (ArchivedTables::PROJECT === $table) {
            $values = $this->checked($path, 2, $table, $columns, \array_slice($lines->valid() ? $lines->current() : [], 1));
            $this->rows->update($table, $columns, $project, $change->row($table, $columns, $values));

            return;
        }
        $this->rows->insert($table, $columns, (function () use ($lines, $path, $table, $columns, $change): iterable {
            for (; $lines->valid(); $lines->next()) {
                $values = $lines->current();
                $id = $change->number($table, (int) array_shift($values));
                yield $id => $change->row($table, $columns, $this->checked($path, $lines->key(), $table, $columns, $values));
            }
        })());
    }

    private function ledger(ProjectArchive $archive, RowChange $change): void
    {
        $path = 'tables/'.self::LEDGER.'.jsonl';
        $lines = $archive->lines($path);
        $columns = $this->columns($path, self::LEDGER, $lines->current());
        $lines->next();
        $this->rows->insert(self::LEDGER, $columns, (function () use ($lines, $archive, $path, $columns, $change): iterable {
            [$seq, $changes] = [(int) array_search('seq', $columns, true), (int) array_search('changes', $columns, true)];
            for (; $lines->valid(); $lines->next()) {
                $values = $lines->current();
                $id = $change->number(self::LEDGER, (int) array_shift($values));
                $values = $change->row(self::LEDGER, $columns, $this->checked($path, $lines->key(), self::LEDGER, $columns, $values));
                $values[$changes] = $this->journal($archive, "ledger/$values[$seq].jsonl", $change);
                yield $id => array_values($values);
            }
        })());
    }

    private function journal(ProjectArchive $archive, string $path, RowChange $change): string
    {
        $aside = (string) tempnam(sys_get_temp_dir(), 'journal');
        $file = gzopen($aside, 'wb3') ?: throw new \RuntimeException('No temporary file can be written.');
        foreach ($archive->lines($path) as $i => $line) {
            [$table, $columns, $images] = $line + [1 => null, 2 => null];
            if (!\is_string($table) || !$this->tables->has($table) || !\is_array($columns) || !\is_array($images)) {
                throw new UnusableInput($path, "line $i is not about a table of a project");
            }
            $known = $this->columns($path, $table, ['id', ...array_values($columns)]);
            $rows = [];
            foreach ($images as $image) {
                $side = fn (mixed $values): ?array => !\is_array($values) ? null
                    : $change->row($table, $known, $this->checked($path, $i, $table, $known, array_values($values)));
                $rows[] = [$change->number($table, (int) ($image[0] ?? 0)), $side($image[1] ?? null), $side($image[2] ?? null)];
            }
            gzwrite($file, (new Images($table, $known, $rows))->toLine());
        }
        gzclose($file);

        return $this->store->take($aside);
    }

    /**
     * @param list<mixed> $line
     *
     * @return list<string> columns the table has
     */
    private function columns(string $path, string $table, array $line): array
    {
        $columns = array_values(array_filter(\array_slice($line, 1), is_string(...)));
        $unknown = array_diff($columns, $this->tables->columns($table));
        if ('id' !== ($line[0] ?? null) || \count($columns) !== \count($line) - 1 || [] !== $unknown) {
            $words = 'has columns that are not known here (%s); was it written by a later version?';
            throw new UnusableInput($path, \sprintf($words, implode(', ', $unknown)));
        }

        return $columns;
    }

    /**
     * @param list<string> $columns
     * @param list<mixed>  $values
     *
     * @return list<mixed>
     */
    private function checked(string $path, int $line, string $table, array $columns, array $values): array
    {
        $types = $this->tables->types($table);
        if (\count($values) !== \count($columns)) {
            throw new UnusableInput($path, "line $line has another number of values than there are columns");
        }
        foreach ($columns as $i => $column) {
            [$type, $mayBeEmpty] = $types[$column];
            $fits = match ($type) {
                'real' => \is_float($values[$i]) || \is_int($values[$i]),
                'number', 'truth' => \is_int($values[$i]),
                default => \is_string($values[$i]),
            };
            if (!$fits && !(null === $values[$i] && $mayBeEmpty)) {
                throw new UnusableInput($path, "line $line, $column: not what this column holds");
            }
        }

        return $values;
    }

    private function compare(Project $project, ProjectArchive $archive): void
    {
        $columns = [];
        foreach ($this->tables->names() as $table) {
            if ($archive->has("tables/$table.jsonl")) {
                $first = $archive->lines("tables/$table.jsonl")->current();
                $columns[$table] = array_values(array_filter(\array_slice($first, 1), is_string(...)));
            }
        }
        $sink = ArchiveSink::hashes();
        $this->writer->into($sink, $project, static function (): void {}, $columns);
        $here = $sink->entries();
        foreach ($archive->entries() as $path => $entry) {
            if (($here[$path]['sha256'] ?? '') !== $entry['sha256']) {
                throw new UnusableInput((string) $path, 'does not come back as it was written; nothing was kept');
            }
        }
    }
}
