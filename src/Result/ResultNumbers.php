<?php

declare(strict_types=1);

namespace App\Result;

use App\Store\NumbersWithin;

/** Places of results, and what they rest on, hold numbers. */
final class ResultNumbers implements NumbersWithin
{
    public static function numbers(): array
    {
        return [
            'result.slot' => ['' => self::AFTER_WORD],
            'result.inputs' => ['{}' => self::AFTER_WORD],
        ];
    }

    public static function words(): array
    {
        return [];
    }
}
