<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Ledger\View\LineageView;
use App\Project\Project;
use Doctrine\DBAL\Connection;

/** What a result rests on, down to the files, and who decided what on the way. */
final class Lineage
{
    public function __construct(private readonly Connection $connection, private readonly Results $results)
    {
    }

    /** @return list<LineageView> */
    public function of(Project $project, string $slot): array
    {
        $steps = [];
        $this->follow($project, $slot, 0, $this->results->current($project), $this->results->stale($project), $steps);

        return $steps;
    }

    /**
     * @param array<string, array<string, mixed>> $current
     * @param array<string, list<string>>         $stale
     * @param list<LineageView>                   $steps
     */
    private function follow(Project $project, string $slot, int $depth, array $current, array $stale, array &$steps): void
    {
        $row = $current[$slot] ?? null;
        if (null === $row) {
            return;
        }
        $steps[] = new LineageView($depth, \sprintf('%s, run %d, %s UTC by %s', $row['label'], $row['run'], substr($row['created_at'], 0, 16), $row['author_name']), isset($stale[$slot]));
        foreach (array_map(strval(...), array_keys($row['inputs'])) as $input) {
            if (str_starts_with($input, 'result:')) {
                $this->follow($project, substr($input, 7), $depth + 1, $current, $stale, $steps);
                continue;
            }
            foreach ($this->contents($project, explode(':', $input)[0]) as $text) {
                $steps[] = new LineageView($depth + 1, $text, false);
            }
        }
    }

    /** @return list<string> */
    private function contents(Project $project, string $kind): array
    {
        $id = $project->id();
        switch ($kind) {
            case 'observations':
                $texts = $this->files('observation', $id, 'observations');
                foreach ($this->connection->fetchAllAssociative('SELECT reason, aside_by, COUNT(*) AS n FROM observation WHERE project_id = ? AND used < 7 GROUP BY reason, aside_by', [$id]) as $row) {
                    $texts[] = \sprintf('%d set aside by %s: %s', $row['n'], $row['aside_by'], '' === $row['reason'] ? 'no reason given' : $row['reason']);
                }

                return $texts;
            case 'control':
                return $this->files('point', $id, 'control marks', "AND t.role = 'control'");
            case 'points':
                return $this->files('point', $id, 'points', "AND t.role = 'surveyed'");
            case 'reference':
                return [\sprintf('reference %s, %s', $project->reference(), 'geoid' === $project->heights() ? 'heights above '.preg_replace('/^(installed|grid):/', '', $project->geoid()) : $project->heights().' heights')];
            case 'network-settings':
                $entry = $this->connection->fetchAssociative("SELECT seq, author_name FROM ledger_entry WHERE project_id = ? AND operation = 'change-network-settings' AND undone_by IS NULL ORDER BY seq DESC LIMIT 1", [$id]);

                return [false === $entry ? 'the default weights' : \sprintf('weights of entry %d by %s', $entry['seq'], $entry['author_name'])];
            default:
                return ['its definition'];
        }
    }

    /** @return list<string> */
    private function files(string $table, int $project, string $noun, string $and = ''): array
    {
        $texts = [];
        foreach ($this->connection->fetchAllAssociative("SELECT f.name, f.sha256, COUNT(*) AS n FROM $table t JOIN survey_file f ON f.id = t.file_id WHERE t.project_id = ? $and GROUP BY f.id ORDER BY f.id", [$project]) as $row) {
            $texts[] = \sprintf('%d %s of %s (sha-256 %s…)', $row['n'], $noun, $row['name'], substr($row['sha256'], 0, 10));
        }

        return $texts;
    }
}
