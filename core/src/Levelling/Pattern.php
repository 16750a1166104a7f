<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** The order in which the sights of a setup are read. */
enum Pattern: string
{
    case BackFore = 'BF';
    case BackForeForeBack = 'BFFB';
    case BackBackForeFore = 'BBFF';

    /** @return list<Sight::BACK|Sight::FORE> */
    public function kinds(): array
    {
        return match ($this) {
            self::BackFore => [Sight::BACK, Sight::FORE],
            self::BackForeForeBack => [Sight::BACK, Sight::FORE, Sight::FORE, Sight::BACK],
            self::BackBackForeFore => [Sight::BACK, Sight::BACK, Sight::FORE, Sight::FORE],
        };
    }
}
