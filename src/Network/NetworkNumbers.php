<?php

declare(strict_types=1);

namespace App\Network;

use App\Store\NumbersWithin;

/** An adjustment knows its observations; the set-ups of a book are of a file. */
final class NetworkNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        return [
            'output adjustment' => ['ids.*' => 'observation'],
            'correction.changes' => ['*.id' => 'observation'],
            'project.network_settings' => ['book.setups.{}' => '|survey_file'],
            'ledger_entry.detail change-station-book' => ['setup' => '|survey_file'],
            'ledger_entry.detail set-aside' => ['rows.*.id' => 'observation'],
            'ledger_entry.detail bring-back' => ['rows.*.id' => 'observation'],
            'ledger_entry.detail correct-observations' => ['changes.*.id' => 'observation'],
            'ledger_entry.detail withdraw-correction' => ['correction' => 'correction'],
        ];
    }

    public static function words(): array
    {
        return [];
    }
}
