<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\Export\ProjectPoints;
use App\Export\SheetTable;
use App\Project\Project;
use App\Project\Shown;
use App\Survey\AcceptedCoordinates;

/** Coordinates of control, adjusted and check points on a sheet. */
final class CoordinateTable implements SheetTable
{
    public function __construct(private readonly ProjectPoints $points)
    {
    }

    public static function key(): string
    {
        return 'coordinates';
    }

    public function title(): string
    {
        return 'Coordinates';
    }

    public function slots(): array
    {
        return [AcceptedCoordinates::SLOT];
    }

    public function rows(Project $project): array
    {
        $as = new Shown($project);
        $rows = [];
        foreach ($this->points->of($project) as $p) {
            if ('surveyed' !== $p->role) {
                $rows[] = [$p->name, $as->length((float) $p->e), $as->length((float) $p->n), null === $p->h ? '' : $as->height($p->h)];
            }
        }

        $unit = $as->length;

        return [
            [['point', 2.0, 'L'], ["easting $unit", 3.0, 'R'], ["northing $unit", 3.0, 'R'], ["height $unit", 2.0, 'R']], $rows,
        ];
    }
}
