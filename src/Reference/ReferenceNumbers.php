<?php

declare(strict_types=1);

namespace App\Reference;

use App\Store\NumbersWithin;

/** Systems, grids and localizations of the project itself are called by their numbers. */
final class ReferenceNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        return [
            'project.reference' => ['' => self::AFTER_WORD],
            'project.geoid' => ['' => self::AFTER_WORD],
        ];
    }

    public static function words(): array
    {
        return ['custom' => 'custom_system', 'grid' => 'grid_file', 'localization' => 'localization'];
    }
}
