<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Store\NumbersWithin;

/** Baselines lie between occupations; corrected features are of a file. */
final class BaselineNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        return [
            'result.settings baseline' => ['base' => 'occupation'],
            'result.settings epochs' => ['base' => 'occupation'],
            'result.settings features' => ['file' => 'survey_file', 'references.*' => 'occupation'],
            'ledger_entry.detail correct-features' => ['file' => 'survey_file', 'references.*' => 'occupation'],
            'ledger_entry.detail accept-vectors' => ['baselines.*' => self::AFTER_WORD],
            'ledger_entry.detail change-occupation' => ['occupation' => 'occupation'],
        ];
    }

    public static function words(): array
    {
        return ['features' => 'survey_file'] + array_fill_keys(['baseline', 'epochs', 'recording', 'occupation'], 'occupation');
    }
}
