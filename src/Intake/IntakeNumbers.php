<?php

declare(strict_types=1);

namespace App\Intake;

use App\Store\NumbersWithin;

/** What a file means may be a system of the project; how it is read may be remembered. */
final class IntakeNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        return [
            'survey_file.meaning' => ['frame' => self::AFTER_WORD, 'geoid' => self::AFTER_WORD],
            'survey_file.mapping' => ['memory' => 'remembered_mapping'],
            'ledger_entry.detail accept-file' => ['meaning.frame' => self::AFTER_WORD, 'meaning.geoid' => self::AFTER_WORD],
        ];
    }

    public static function words(): array
    {
        return [];
    }
}
