<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;
use App\Review\Checked;

/** What stands at the head of a report: the company, and whether what it reports was checked. */
final class ReportHead
{
    public function __construct(private readonly Checked $checked)
    {
    }

    /** @return list<string> lines of the company */
    public function company(Project $project): array
    {
        return array_values(array_filter(array_map(trim(...), explode("\n", $project->letterhead()))));
    }

    /** "Checked by Name, 2031-05-04 16:20 UTC."; empty where no check stands. */
    public function checked(Project $project, string $slot): string
    {
        $words = $this->checked->words($project, $slot);

        return '' === $words ? '' : ucfirst($words).'.';
    }

    public function open(ReportPages $page, Project $project, string $slot): void
    {
        $page->letterhead($this->company($project), $this->checked($project, $slot));
    }
}
