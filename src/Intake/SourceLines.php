<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\View\SourceLine;

/** Lines of a file as received. */
final class SourceLines
{
    private const LONGEST = 400;

    /** @return list<SourceLine> a line and those next to it */
    public static function around(string $bytes, int $line): array
    {
        $all = preg_split('/\r\n|\n|\r/', mb_scrub($bytes)) ?: [];
        $around = [];
        for ($k = max(1, $line - 1); $k <= min(\count($all), $line + 1); ++$k) {
            $around[] = new SourceLine($k, mb_substr($all[$k - 1], 0, self::LONGEST));
        }

        return $around;
    }
}
