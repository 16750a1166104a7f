<?php

declare(strict_types=1);

namespace App\Reference;

use App\Store\NumbersWithin;

/** Systems, grids and localizations of the project itself are called by their numbers. */
final class ReferenceNumbers implements NumbersWithin
{
    private const SIDES = [
        'from.reference' => self::AFTER_WORD, 'from.geoid' => self::AFTER_WORD, 'to.reference' => self::AFTER_WORD,
        'to.geoid' => self::AFTER_WORD,
    ];

    public static function numbers(): array
    {
        return [
            'localization.file' => ['grid.system' => self::AFTER_WORD, 'grid.heights' => self::AFTER_WORD],
            'ledger_entry.detail apply-localization' => ['system' => self::AFTER_WORD, 'heights' => self::AFTER_WORD],
            'ledger_entry.detail change-reference' => self::SIDES, 'project.reference' => ['' => self::AFTER_WORD],
            'project.geoid' => ['' => self::AFTER_WORD],
        ];
    }

    public static function words(): array
    {
        return ['custom' => 'custom_system', 'grid' => 'grid_file', 'localization' => 'localization'];
    }
}
