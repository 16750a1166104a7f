<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Store\NumbersWithin;

/** Clouds, passes and flights are made of files. */
final class CloudsNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        $drives = [
            'trajectory' => 'survey_file', 'cloud' => 'survey_file', 'referenceTrajectory' => 'survey_file',
            'referenceCloud' => 'survey_file',
        ];

        return [
            'result.settings cloud' => ['files.*' => 'survey_file'],
            'ledger_entry.detail make-cloud' => ['files.*' => 'survey_file'],
            'result.settings pass' => $drives,
            'ledger_entry.detail align-pass' => $drives,
            'result.settings flight' => ['mission' => 'survey_file'],
            'ledger_entry.detail adjust-flight' => ['mission' => 'survey_file'],
        ];
    }

    public static function words(): array
    {
        return [];
    }
}
