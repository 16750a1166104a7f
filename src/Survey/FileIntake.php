<?php

declare(strict_types=1);

namespace App\Survey;

use App\Account\User;
use App\Project\Project;

/** Brings a file into a project as if it had been dropped, and takes it in at once: for stages that fetch files themselves. */
interface FileIntake
{
    /** @return int database id of the file; that of its twin where the same bytes are there already */
    public function take(Project $project, User $author, string $name, string $bytes): int;
}
