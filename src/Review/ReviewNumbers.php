<?php

declare(strict_types=1);

namespace App\Review;

use App\Store\NumbersWithin;

/** What a remark is about is a place among the results. */
final class ReviewNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        return [
            'remark.about' => ['' => self::AFTER_WORD],
            'remark.answers' => ['' => 'remark'],
            'ledger_entry.detail remark' => ['about' => self::AFTER_WORD],
        ];
    }

    public static function words(): array
    {
        return [];
    }
}
