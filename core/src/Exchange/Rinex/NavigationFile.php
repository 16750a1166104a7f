<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Gnss\Ephemeris;

/** What a RINEX navigation file holds. */
final class NavigationFile
{
    /** @var list<Ephemeris> */
    public array $ephemerides = [];

    /** @var ?array{float, float, float, float, float, float, float, float} alpha and beta of the GPS ionosphere model */
    public ?array $klobuchar = null;
}
