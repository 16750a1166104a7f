<?php

declare(strict_types=1);

namespace App\Course;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Project\Request\UnitsRequest;

/** Changes how quantities are shown; never what they are. */
final class ChangeUnits implements Operation
{
    public function __construct(private readonly UnitsRequest $units)
    {
    }

    public function name(): string
    {
        return 'change-units';
    }

    public function title(): string
    {
        return \sprintf(
            'Shows lengths in %s, angles in %s, %d decimals', $this->units->length, $this->units->angle,
            $this->units->decimals,
        );
    }

    public function detail(): array
    {
        return (array) $this->units;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $project->showIn((array) $this->units);
    }
}
