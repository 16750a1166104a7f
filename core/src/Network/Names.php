<?php

declare(strict_types=1);

namespace Mensura\Network;

/** Station names in messages: a few of many. */
final class Names
{
    private const SHOWN = 8;

    /** @param list<string> $names */
    public static function listed(array $names): string
    {
        $count = \count($names);
        if ($count > self::SHOWN) {
            return implode(', ', \array_slice($names, 0, self::SHOWN)).\sprintf(' and %d more', $count - self::SHOWN);
        }

        return implode(', ', $names);
    }
}
