<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Project\Project;
use Mensura\Fault\UnusableInput;

/**
 * An operation whose long part runs before the lock is taken: reading, placing, computing. Prepared again when the
 * project changed in between.
 */
interface Prepared extends Operation
{
    /** @throws UnusableInput */
    public function prepare(Project $project): void;
}
