<?php

declare(strict_types=1);

namespace App\Reference\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Pairs and what to fit. Held values: metres, degrees clockwise, ratio; null fits. The system may stay open until it is kept. */
final readonly class LocalizationRequest
{
    /**
     * @param list<array{name: string, localE: float, localN: float, localH: float|null, gridE: float, gridN: float,
     * gridH: float|null, horizontal: bool, vertical: bool}> $pairs
     */
    public function __construct(
        #[Assert\Count(max: 5000)]
        public array $pairs,
        public string $system = '',
        #[Assert\Choice(['ellipsoidal', 'geoid'])]
        public string $heights = 'ellipsoidal',
        public string $geoid = '',
        public ?float $shiftE = null,
        public ?float $shiftN = null,
        public ?float $rotation = null,
        public ?float $scale = null,
        #[Assert\Choice(['none', 'shift', 'plane'])]
        public string $vertical = 'shift',
        #[Assert\Length(max: 160)]
        public string $name = '',
    ) {
    }
}
