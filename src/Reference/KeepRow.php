<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;

/** Keeps a named thing of the reference stage: a system of the project's own, a grid file or a localization. Names are unique within their kind. */
final class KeepRow implements Operation
{
    private int $id = 0;

    /**
     * @param array<string, mixed> $row    columns besides project_id and created_at; "name" among them
     * @param array<string, mixed> $detail
     */
    public function __construct(private readonly Connection $connection, private readonly string $operation, private readonly string $table, private readonly string $title, private readonly array $row, private readonly array $detail = [])
    {
    }

    public function name(): string
    {
        return $this->operation;
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
        if (false !== $this->connection->fetchOne("SELECT 1 FROM {$this->table} WHERE project_id = ? AND name = ?", [$project->id(), $this->row['name']])) {
            throw new UnusableInput('/name', \sprintf('the project has "%s" already; choose another name', $this->row['name']));
        }
        $this->id = $journal->insert($this->table, ['project_id' => $project->id(), 'created_at' => $journal->at->format('Y-m-d H:i:s')] + $this->row);
    }

    /** Database id of what was kept. */
    public function id(): int
    {
        return $this->id;
    }
}
