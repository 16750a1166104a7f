<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;

/** Sets observations, or single components of vectors, aside with a reason, or brings them back. */
final class SetUse implements Operation
{
    private const COMPONENTS = ['dx' => 1, 'dy' => 2, 'dz' => 4];

    private string $title = '';

    /** @param list<array{id: int, component: ?string}> $rows */
    public function __construct(
        private readonly Connection $connection,
        private readonly array $rows,
        private readonly bool $aside,
        private readonly string $reason,
    ) {
    }

    public function name(): string
    {
        return $this->aside ? 'set-aside' : 'bring-back';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return ['rows' => $this->rows, 'reason' => $this->reason];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $names = [];
        foreach ($this->rows as $row) {
            $o = $this->connection->fetchAssociative('SELECT id, kind, set_name, from_name, to_name, used FROM observation WHERE id = ? AND project_id = ?', [$row['id'], $project->id()]);
            if (false === $o) {
                throw new UnusableInput('/rows', 'there is no such observation in this project');
            }
            $mask = null === $row['component'] ? 7 : self::COMPONENTS[$row['component']] ?? throw new UnusableInput('/rows', 'a component is dx, dy or dz');
            $used = $this->aside ? (int) $o['used'] & ~$mask : (int) $o['used'] | $mask;
            $journal->update('observation', (int) $o['id'], ['used' => $used] + ($this->aside
                ? ['reason' => $this->reason, 'aside_by' => $journal->authorName, 'aside_at' => $journal->at->format('Y-m-d H:i:s')]
                : (7 === $used ? ['reason' => '', 'aside_by' => null, 'aside_at' => null] : [])));
            $names[] = \sprintf('%s%s %s%s → %s', $o['kind'], null === $row['component'] ? '' : ' '.$row['component'], $o['from_name'], '' === $o['set_name'] ? '' : '/'.$o['set_name'], $o['to_name']);
        }
        $what = \count($names) > 2 ? \sprintf('%d observations', \count($names)) : implode(', ', $names);
        $this->title = $this->aside ? "Set aside $what".('' === $this->reason ? '' : ': '.$this->reason) : "Brought back $what";
    }
}
