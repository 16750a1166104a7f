<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** Seconds by which GPS time is ahead of UTC (IERS Bulletin C). */
final class LeapSeconds
{
    /** From when a count holds, as a date of UTC. */
    private const STEPS = [
        '1981-07-01', '1982-07-01', '1983-07-01', '1985-07-01', '1988-01-01', '1990-01-01', '1991-01-01', '1992-07-01', '1993-07-01',
        '1994-07-01', '1996-01-01', '1997-07-01', '1999-01-01', '2006-01-01', '2009-01-01', '2012-07-01', '2015-07-01', '2017-01-01',
    ];

    /** @param string $date of UTC, as 2031-05-04 */
    public static function at(string $date): int
    {
        return \count(array_filter(self::STEPS, static fn (string $step): bool => $date >= $step));
    }
}
