<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;

/** A {@see Report} written as PDF. */
trait WritesPages
{
    /**
     * @param list<int> $chosen
     *
     * @return list<string>
     */
    public function write(Project $project, array $chosen, string $path): array
    {
        [$page, $leftOut] = $this->pages($project, $chosen);
        $page->Output($path, 'F');

        return $leftOut;
    }
}
