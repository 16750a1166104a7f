<?php

declare(strict_types=1);

namespace App\Checks;

use App\Store\NumbersWithin;

/** Deviations and checks are of surfaces and of clouds and designs of files. */
final class ChecksNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        return [
            'result.settings deviation' => [
                'surface' => 'surface', 'measuredSurface' => 'surface', 'design' => 'survey_file', 'cloud' => 'survey_file',
                'measuredCloud' => 'survey_file',
            ],
            'ledger_entry.detail compare' => [
                'surface' => 'surface', 'measuredSurface' => 'surface', 'design' => 'survey_file', 'cloud' => 'survey_file',
                'measuredCloud' => 'survey_file',
            ],
            'result.settings check' => ['surface' => 'surface', 'cloud' => 'survey_file'],
            'ledger_entry.detail check' => ['surface' => 'surface', 'cloud' => 'survey_file'],
        ];
    }

    public static function words(): array
    {
        return [];
    }
}
