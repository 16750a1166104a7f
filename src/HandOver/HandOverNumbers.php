<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\Exporter;
use App\Store\NumbersWithin;

/** What is handed over is chosen by number. */
final class HandOverNumbers implements NumbersWithin
{
    /** Where they stand in a definition, by its table, with the name of the operation that defines it. */
    private const DEFINED = [
        'package' => ['define-package', [
            'surfaces.*' => 'surface', 'layers.*.file' => 'survey_file', 'alignments.*.file' => 'survey_file',
            'localization' => 'localization', 'geoid' => 'grid_file',
        ]],
        'saved_view' => ['define-view', ['surfaces.*.id' => 'surface', 'layers.*.file' => 'survey_file']],
        'sheet' => ['define-sheet', ['windows.*.view' => 'saved_view']],
        'cad_set' => ['define-drawing-set', [
            'surfaces.*.id' => 'surface', 'layers.*.file' => 'survey_file', 'alignments.*.file' => 'survey_file',
            'catalogue' => 'feature_catalogue',
        ]],
        'gis_set' => ['define-gis-set', ['layers.*.file' => 'survey_file', 'system' => self::AFTER_WORD]],
    ];

    /** Whose numbers a written file is of, by its kind. */
    private const WRITTEN = [
        'dxf' => 'surface', 'landxml' => 'surface', 'package' => 'package', 'sheet' => 'sheet', 'cad' => 'cad_set', 'gis' => 'gis_set',
        'catalogue' => 'feature_catalogue',
    ];

    public static function numbers(): array
    {
        $numbers = [];
        foreach (self::DEFINED as $table => [$operation, $paths]) {
            $numbers[$table.'.definition'] = $numbers['ledger_entry.detail '.$operation] = $paths;
        }
        foreach (self::WRITTEN as $kind => $table) {
            $numbers['result.settings '.Exporter::PREFIX.$kind] = ['surfaces.*' => $table];
        }

        return $numbers;
    }

    public static function words(): array
    {
        $words = array_diff_key(self::WRITTEN, ['dxf' => true, 'landxml' => true]);
        foreach (self::WRITTEN as $kind => $table) {
            $words[Exporter::PREFIX.$kind] = $table;
        }

        return $words;
    }
}
