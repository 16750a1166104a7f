<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** Drives of the same streets, which of them the others are laid onto, and the targets they saw. */
final readonly class PassSet
{
    /**
     * @param list<Pass>           $passes
     * @param list<Sighting>       $sightings
     * @param float                $every     metres of plan length, or seconds
     * @param float                $radius    metres beyond which two surfaces are not the same
     */
    public function __construct(
        public array $passes, public int $reference, public array $sightings, public float $every, public bool $isEveryTime,
        public float $radius,
    ) {
    }
}
