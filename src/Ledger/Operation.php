<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** One change of a project: validated input, applied inside one transaction, one ledger entry. */
interface Operation
{
    /** Stable name, kebab-case. */
    public function name(): string;

    /** What was done, as the ledger says it. Asked after apply(). */
    public function title(): string;

    /**
     * What it was done with: settings and figures worth keeping beside the entry. Asked after apply().
     *
     * @return array<string, mixed>
     */
    public function detail(): array;

    /** @throws UnusableInput when it cannot be done; nothing is changed then */
    public function apply(Project $project, Journal $journal): void;
}
