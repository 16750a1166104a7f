<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;

/** A kind of export for which something is chosen: surfaces, a volume, a comparison. */
interface OffersChoice extends ExportKind
{
    /** @return array<int, string> names by number */
    public function choices(Project $project): array;
}
