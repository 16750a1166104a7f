<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Export\SheetTable;
use App\Project\Project;
use App\Project\Shown;

/** Volumes on a drawing sheet. */
final class VolumeTable implements SheetTable
{
    public function __construct(private readonly VolumePage $volumes)
    {
    }

    public static function key(): string
    {
        return 'volumes';
    }

    public function title(): string
    {
        return 'Volumes';
    }

    public function slots(): array
    {
        return [VolumeMaker::PREFIX];
    }

    public function rows(Project $project): array
    {
        $as = new Shown($project);
        $rows = [];
        foreach ($this->volumes->of($project) as $v) {
            $rows[] = [$v->name, $as->volume($v->cut, false), $as->volume($v->fill, false), $as->volume($v->net, false)];
        }
        $unit = $as->volumeUnit();

        return [[['volume', 4.0, 'L'], ["cut $unit", 2.0, 'R'], ["fill $unit", 2.0, 'R'], ["net $unit", 2.0, 'R']], $rows];
    }
}
