<?php

declare(strict_types=1);

namespace App\Reference\Request;

use Symfony\Component\Validator\Constraints as Assert;

/**
 * What coordinates and heights mean: "EPSG:n", "custom:ID" or "plane"; heights ellipsoidal, geoid or local; a geoid as
 * "installed:NAME" or "grid:ID"; epoch as a decimal year, for parameters that move with time.
 */
final readonly class ReferenceRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 60)]
        public string $reference,
        #[Assert\Choice(['ellipsoidal', 'geoid', 'local'])]
        public string $heights,
        #[Assert\Length(max: 80)]
        public string $geoid = '',
        #[Assert\Length(max: 400)]
        public ?string $operation = null,
        #[Assert\Range(min: 1900, max: 2100)]
        public ?float $epoch = null,
    ) {
    }
}
