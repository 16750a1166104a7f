<?php

declare(strict_types=1);

namespace App\Network\View;

/** The total-station book of a project. */
final readonly class BookView
{
    /** @param list<BookSetupView> $setups */
    public function __construct(
        public ?float $referenceRefractivity,
        public float $wavelength,
        public string $version,
        public array $setups,
    ) {
    }
}
