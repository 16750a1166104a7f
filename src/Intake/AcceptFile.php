<?php

declare(strict_types=1);

namespace App\Intake;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Fault\UnusableInput;

/** Takes a waiting file into the project: its points and observations, all or none. */
final class AcceptFile implements Operation
{
    private string $title = '';

    /** @var array<string, mixed> */
    private array $detail = [];

    public function __construct(
        private readonly Connection $connection,
        private readonly FileStore $store,
        private readonly Placer $placer,
        private readonly SurveyFile $file,
        private readonly bool $leaveOutBad,
    ) {
    }

    public function name(): string
    {
        return 'accept-file';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return $this->detail;
    }

    public function apply(Project $project, Journal $journal): void
    {
        if (SurveyFile::WAITING !== $this->connection->fetchOne('SELECT state FROM survey_file WHERE id = ?', [$this->file->id()])) {
            throw new UnusableInput($this->file->name(), 'is accepted already');
        }
        $reading = FileReading::of($this->store, $this->file);
        $mapping = $reading->mapping;
        if ([] !== $missing = $mapping->missing()) {
            throw new UnusableInput($this->file->name(), \sprintf('no column is chosen for %s', $missing[0]->label));
        }
        if ([] !== $questions = $mapping->questions()) {
            throw new UnusableInput($this->file->name(), \sprintf('say in which unit %s is', $questions[0]->label));
        }
        $reader = $reading->reader;
        if ($reader->leftOut > 0 && !$this->leaveOutBad) {
            $first = $reader->findings[0];
            throw new UnusableInput(\sprintf('%s line %d', $this->file->name(), (int) $first->line), \sprintf('%s; %d line(s) cannot be used: correct the file, or accept without them', $first->message, $reader->leftOut));
        }
        if ([] === $reader->records) {
            throw new UnusableInput($this->file->name(), 'no line of it can be used');
        }
        $placed = $this->placer->place($project, $reading);
        foreach ($placed->findings as $finding) {
            if (Finding::ERROR === $finding->severity) {
                throw new UnusableInput($this->file->name(), $finding->message);
            }
        }
        if ([] !== $placed->asks) {
            throw new UnusableInput($this->file->name(), 'answer first: '.implode(' ', $placed->asks));
        }
        match ($mapping->kind) {
            FileKind::Control => $this->points($project, $journal, $placed, 'control'),
            FileKind::Points => $this->points($project, $journal, $placed, 'surveyed'),
            FileKind::TotalStation => $this->pointings($project, $journal, $reader->records),
            FileKind::Vectors => $this->vectors($project, $journal, $reader->records),
        };
        $journal->update('survey_file', $this->file->id(), [
            'state' => SurveyFile::ACCEPTED, 'kind' => $mapping->kind->value, 'mapping' => json_encode($mapping->toArray(), \JSON_THROW_ON_ERROR),
            'records' => \count($reader->records), 'left_out' => $reader->leftOut, 'accepted_at' => $journal->at->format('Y-m-d H:i:s'),
        ]);
        $counts = $reading->counts();
        $this->title = \sprintf('Accepted %s: %s, %s', $this->file->name(), $mapping->kind->label(), implode(', ', array_map(static fn (int $c, string $w): string => $c.' '.(1 === $c ? rtrim($w, 's') : $w), $counts, array_keys($counts))));
        if ('project' !== $reading->meaning->frame) {
            $this->title .= 'local' === $reading->meaning->frame ? ', known only locally' : ', brought over from '.$reading->meaning->frame;
        }
        $this->detail = ['file' => $this->file->name(), 'sha256' => $this->file->sha256(), 'counts' => $counts, 'leftOut' => $reader->leftOut, 'mapping' => $mapping->toArray(), 'meaning' => $reading->meaning->toArray()];
    }

    private function points(Project $project, Journal $journal, Placement $placed, string $role): void
    {
        $existing = [];
        foreach ($this->connection->fetchAllAssociative('SELECT id, name, role, source, known FROM point WHERE project_id = ?', [$project->id()]) as $row) {
            $existing[(string) $row['name']] = $row;
        }
        foreach ($placed->records as $r) {
            $known = $existing[$r['name']]['known'] ?? $placed->known;
            if ($known !== $placed->known) {
                throw new UnusableInput(\sprintf('%s line %d', $this->file->name(), $r['line']), \sprintf('%s is in the project already, known %sly; rename one of them', $r['name'], $known));
            }
            $row = ['code' => $r['code'], 'file_id' => $this->file->id(), 'line' => $r['line']];
            if ('control' === $role) {
                $row += ['role' => 'control', 'given_e' => $r['e'], 'given_n' => $r['n'], 'given_h' => $r['h'], 'held' => $r['held'], 'sd_e' => $r['sd'][0], 'sd_n' => $r['sd'][1], 'sd_h' => $r['sd'][2]];
            }
            $present = $existing[$r['name']] ?? null;
            if (null === $present) {
                $journal->insert('point', ['project_id' => $project->id(), 'name' => $r['name'], 'role' => $role, 'source' => 'file', 'e' => $r['e'], 'n' => $r['n'], 'h' => $r['h'], 'known' => $placed->known] + $row);
            } elseif ('control' === $role) {
                $journal->update('point', (int) $present['id'], 'adjusted' === $present['source'] ? $row : $row + ['e' => $r['e'], 'n' => $r['n'], 'h' => $r['h']]);
            } elseif ('file' === $present['source'] && 'surveyed' === $present['role']) {
                $journal->update('point', (int) $present['id'], $row + ['e' => $r['e'], 'n' => $r['n'], 'h' => $r['h']]);
            }
            // A surveyed position of a control or adjusted mark does not replace it; the preview showed their distance.
        }
    }

    /** @param list<array<string, mixed>> $records */
    private function pointings(Project $project, Journal $journal, array $records): void
    {
        foreach ($records as $r) {
            $common = ['project_id' => $project->id(), 'file_id' => $this->file->id(), 'line' => $r['line'], 'set_name' => (string) $r['set'], 'from_name' => $r['station'], 'to_name' => $r['target']];
            $journal->insert('observation', $common + ['kind' => 'direction', 'v1' => $r['direction']]);
            if (null !== $r['zenith']) {
                $journal->insert('observation', $common + ['kind' => 'zenith', 'v1' => $r['zenith'], 'hi' => $r['hi'], 'ht' => $r['ht']]);
            }
            if (null !== $r['distance']) {
                $journal->insert('observation', $common + ['kind' => 'slope-distance', 'v1' => $r['distance'], 'hi' => $r['hi'], 'ht' => $r['ht']]);
            }
        }
    }

    /** @param list<array<string, mixed>> $records */
    private function vectors(Project $project, Journal $journal, array $records): void
    {
        foreach ($records as $r) {
            $journal->insert('observation', [
                'project_id' => $project->id(), 'file_id' => $this->file->id(), 'line' => $r['line'], 'kind' => 'vector', 'set_name' => (string) $r['session'],
                'from_name' => $r['from'], 'to_name' => $r['to'], 'v1' => $r['d'][0], 'v2' => $r['d'][1], 'v3' => $r['d'][2],
                'covariance' => json_encode($r['covariance'], \JSON_THROW_ON_ERROR),
            ]);
        }
    }
}
