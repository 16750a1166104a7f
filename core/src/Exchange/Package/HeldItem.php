<?php

declare(strict_types=1);

namespace Mensura\Exchange\Package;

/** One thing a package holds, as it was read back. */
final readonly class HeldItem
{
    /**
     * @param string $kind  surface, alignment, lines, points, background, system, localization or geoid
     * @param int    $count faces, elements, lines, points
     * @param string $from  the version it was made of
     * @param string $why   it does not hold; empty where it does
     */
    public function __construct(
        public string $kind, public string $name, public int $count, public string $file, public string $from, public string $why,
    ) {
    }
}
