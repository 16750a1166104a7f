<?php

declare(strict_types=1);

namespace App\Job;

/** How long a worker holds a job without a sign of life. */
final class Lease
{
    public const SECONDS = 90;

    public static function until(\DateTimeImmutable $now): \DateTimeImmutable
    {
        return $now->modify('+'.self::SECONDS.' seconds');
    }
}
