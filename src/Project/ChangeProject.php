<?php

declare(strict_types=1);

namespace App\Project;

use App\Ledger\Journal;
use App\Ledger\Operation;

/** Changes columns of the project itself: reference and heights, or the display units. */
final class ChangeProject implements Operation
{
    /** @param array<string, string> $fields by column */
    public function __construct(private readonly string $name, private readonly string $title, private readonly array $fields)
    {
    }

    public function name(): string
    {
        return $this->name;
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return $this->fields;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $journal->update('project', $project->id(), $this->fields);
    }
}
