<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Store\NumbersWithin;

/** Surfaces take drawings and clouds of files; volumes and sections take surfaces. */
final class TerrainNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        return [
            'surface.definition' => ['design.file' => 'survey_file', 'drawn.*.file' => 'survey_file', 'cloud.file' => 'survey_file'],
            'ledger_entry.detail define-surface' => [
                'design.file' => 'survey_file', 'drawn.*.file' => 'survey_file', 'cloud.file' => 'survey_file',
            ],
            'result.settings volume' => ['surface' => 'surface', 'other' => 'surface'],
            'ledger_entry.detail compute-volume' => ['surface' => 'surface', 'other' => 'surface'],
            'result.settings section' => ['surfaces.*' => 'surface', 'file' => 'survey_file'],
            'ledger_entry.detail cut-section' => ['surfaces.*' => 'surface', 'file' => 'survey_file'],
        ];
    }

    public static function words(): array
    {
        return ['surface' => 'surface'];
    }
}
