<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Store\NumbersWithin;

/** Clouds are made of files. */
final class CloudsNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        return [
            'result.settings cloud' => ['files.*' => 'survey_file'],
            'ledger_entry.detail make-cloud' => ['files.*' => 'survey_file'],
        ];
    }

    public static function words(): array
    {
        return [];
    }
}
