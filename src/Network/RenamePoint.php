<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;

/** Gives a point another name everywhere; onto an existing name it means that both are one mark. */
final class RenamePoint implements Operation
{
    public function __construct(private readonly Connection $connection, private readonly string $from, private readonly string $to)
    {
    }

    public function name(): string
    {
        return 'rename-point';
    }

    public function title(): string
    {
        return \sprintf('Renamed %s to %s', $this->from, $this->to);
    }

    public function detail(): array
    {
        return ['from' => $this->from, 'to' => $this->to];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $id = $project->id();
        $point = $this->connection->fetchOne('SELECT id FROM point WHERE project_id = ? AND name = ?', [$id, $this->from]);
        $target = $this->connection->fetchOne('SELECT id FROM point WHERE project_id = ? AND name = ?', [$id, $this->to]);
        $observations = $this->connection->fetchAllAssociative('SELECT id, from_name, to_name FROM observation WHERE project_id = ? AND (from_name = ? OR to_name = ?)', [$id, $this->from, $this->from]);
        if (false === $point && [] === $observations) {
            throw new UnusableInput('/from', \sprintf('there is no point %s', $this->from));
        }
        foreach ($observations as $o) {
            $ends = ['from_name' => $o['from_name'] === $this->from ? $this->to : $o['from_name'], 'to_name' => $o['to_name'] === $this->from ? $this->to : $o['to_name']];
            if ($ends['from_name'] === $ends['to_name']) {
                throw new UnusableInput('/to', \sprintf('%s and %s observe each other, so they are two marks', $this->from, $this->to));
            }
            $journal->update('observation', (int) $o['id'], $ends);
        }
        if (false !== $point) {
            if (false !== $target) {
                $journal->delete('point', (int) $point);
            } else {
                $journal->update('point', (int) $point, ['name' => $this->to]);
            }
        }
    }
}
