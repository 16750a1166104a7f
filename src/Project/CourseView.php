<?php

declare(strict_types=1);

namespace App\Project;

use App\Ledger\Results;
use App\Network\Adjuster;
use App\Project\View\StageView;
use Doctrine\DBAL\Connection;

/** The state of every stage, for the course. */
final class CourseView
{
    public function __construct(private readonly Connection $connection)
    {
    }

    /**
     * @param array<string, array<string, mixed>> $current newest results by slot
     * @param array<string, list<string>>         $stale
     *
     * @return list<StageView>
     */
    public function of(Project $project, array $current, array $stale): array
    {
        $id = $project->id();
        $files = $this->connection->fetchAllKeyValue('SELECT state, COUNT(*) FROM survey_file WHERE project_id = ? GROUP BY state', [$id]);
        $waiting = (int) ($files['waiting'] ?? 0);
        $accepted = (int) ($files['accepted'] ?? 0);
        $observations = (int) $this->connection->fetchOne('SELECT COUNT(*) FROM observation WHERE project_id = ?', [$id]);

        return [
            new StageView('intake', 'Intake', $waiting > 0 ? 'attention' : ($accepted > 0 ? 'done' : 'ready'), $waiting > 0 ? "$waiting to accept" : ($accepted > 0 ? $accepted.(1 === $accepted ? ' file' : ' files') : 'bring files')),
            new StageView('reference', 'Reference', 'done', Project::PLANE === $project->reference() ? 'plane · '.$project->heights() : (str_starts_with($project->reference(), 'EPSG:') ? substr($project->reference(), 5) : 'own').' · '.('ellipsoidal' === $project->heights() ? 'ellips.' : 'geoid')),
            new StageView('baselines', 'Baselines', 'empty', '—'),
            $this->network($current[Adjuster::SLOT] ?? null, isset($stale[Adjuster::SLOT]), $observations),
            $this->counted('terrain', 'Terrain', 'surface:', 'surface', $current, $stale),
            new StageView('clouds', 'Clouds', 'empty', '—'),
            new StageView('checks', 'Checks', 'empty', '—'),
            $this->counted('handover', 'Hand-over', 'export:', 'file', $current, $stale),
        ];
    }

    /** @param ?array<string, mixed> $result */
    private function network(?array $result, bool $isStale, int $observations): StageView
    {
        [$state, $caption] = match (true) {
            0 === $observations => ['empty', '—'],
            null === $result => ['ready', "$observations observations"],
            $isStale => ['stale', 'stale'],
            $result['summary']['flagged'] > 0 => ['attention', $result['summary']['flagged'].' to look at'],
            false === ($result['summary']['test']['passed'] ?? null) => ['attention', 'test fails'],
            default => ['done', null === $result['summary']['test'] ? 'untested' : 'test holds'],
        };

        return new StageView('network', 'Network', $state, $caption);
    }

    /**
     * @param array<string, array<string, mixed>> $current
     * @param array<string, list<string>>         $stale
     */
    private function counted(string $key, string $label, string $prefix, string $noun, array $current, array $stale): StageView
    {
        $count = \count(array_filter(array_keys($current), static fn (string $slot): bool => str_starts_with($slot, $prefix)));
        $old = \count(array_filter(array_keys($stale), static fn (string $slot): bool => str_starts_with($slot, $prefix)));

        return match (true) {
            0 === $count => new StageView($key, $label, 'empty', '—'),
            $old > 0 => new StageView($key, $label, 'stale', "$old stale"),
            default => new StageView($key, $label, 'done', $count.' '.$noun.(1 === $count ? '' : 's')),
        };
    }
}
