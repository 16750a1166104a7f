<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** Which of two columns is the easting, by the size of their values. */
final class PlanOrder
{
    /** Grids are made so that eastings have six digits (false origin 500 km) and northings seven away from the equator. */
    private const NORTHINGS_FROM = 1e6;
    private const EASTINGS_FROM = 1e5;

    /** @return ?bool true when the first is the easting, false when the second is, null when the values do not say */
    public static function isFirstEasting(ColumnValues $first, ColumnValues $second): ?bool
    {
        $a = abs((float) $first->median());
        $b = abs((float) $second->median());

        return match (true) {
            self::isEasting($a) && $b >= self::NORTHINGS_FROM => true,
            self::isEasting($b) && $a >= self::NORTHINGS_FROM => false,
            default => null,
        };
    }

    private static function isEasting(float $value): bool
    {
        return $value >= self::EASTINGS_FROM && $value < self::NORTHINGS_FROM;
    }
}
