<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Export\SheetTable;
use App\Network\Adjuster;
use App\Network\NetworkReport;
use App\Network\View\RowView;
use App\Project\Project;

/** The largest standardized residuals of the adjustment on a drawing sheet. */
final class ResidualTable implements SheetTable
{
    private const MOST = 40;

    public function __construct(private readonly NetworkReport $report)
    {
    }

    public static function key(): string
    {
        return 'residuals';
    }

    public function title(): string
    {
        return 'Largest residuals';
    }

    public function slots(): array
    {
        return [Adjuster::SLOT];
    }

    public function rows(Project $project): array
    {
        $rows = array_filter($this->report->of($project)->rows, static fn (RowView $r): bool => $r->used && null !== $r->standardized);
        usort($rows, static fn (RowView $a, RowView $b): int => abs((float) $b->standardized) <=> abs((float) $a->standardized));
        $said = array_map(static fn (RowView $r): array => [
            trim("$r->kind $r->component"), "$r->at - $r->to", \sprintf('%.1f', (float) $r->standardized),
        ], \array_slice($rows, 0, self::MOST));

        return [[['observation', 3.0, 'L'], ['from - to', 3.0, 'L'], ['standardized', 2.0, 'R']], array_values($said)];
    }
}
