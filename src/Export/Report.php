<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** A report: made once, written as PDF by its kind and as HTML by {@see HtmlTwin}. */
interface Report extends ExportKind
{
    /**
     * @param list<int> $chosen
     *
     * @return array{ReportPages, list<string>} its pages, and what they do not hold, in words
     *
     * @throws UnusableInput
     */
    public function pages(Project $project, array $chosen): array;
}
