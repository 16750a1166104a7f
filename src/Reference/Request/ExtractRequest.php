<?php

declare(strict_types=1);

namespace App\Reference\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A geoid extract: the model, an area by corners or by centre and radius (km), a step (degrees; null keeps it), an ellipsoid. */
final readonly class ExtractRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim')]
        public string $geoid,
        #[Assert\Choice(['corners', 'radius'])]
        public string $by,
        public ?float $south = null,
        public ?float $west = null,
        public ?float $north = null,
        public ?float $east = null,
        public ?float $lat = null,
        public ?float $lon = null,
        public ?float $radiusKm = null,
        public ?float $step = null,
        #[Assert\Choice(['global', 'local'])]
        public string $ellipsoid = 'global',
        #[Assert\Length(max: 80)]
        public string $label = '',
    ) {
    }
}
