<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;

/** Changes what stands at the head of reports: the company and where it is. */
final class ChangeLetterhead implements Operation
{
    public function __construct(private readonly string $letterhead)
    {
    }

    public function name(): string
    {
        return 'change-letterhead';
    }

    public function title(): string
    {
        return '' === $this->letterhead ? 'Took the head off reports' : 'Heads reports with '.strtok($this->letterhead, "\n");
    }

    public function detail(): array
    {
        return ['letterhead' => $this->letterhead];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $project->head($this->letterhead);
    }
}
