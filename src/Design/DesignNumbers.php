<?php

declare(strict_types=1);

namespace App\Design;

use App\Store\NumbersWithin;

/** Where a project went since a drawing or a cloud came in may have been a system, a geoid or a localization of its own. */
final class DesignNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        $side = ['reference', 'geoid'];
        $steps = ['steps.*.localization' => 'localization'];
        foreach (['from', 'to'] as $end) {
            foreach ($side as $field) {
                $steps["steps.*.$end.$field"] = self::AFTER_WORD;
            }
        }

        return ['survey_file.mapping' => $steps];
    }

    public static function words(): array
    {
        return [];
    }
}
