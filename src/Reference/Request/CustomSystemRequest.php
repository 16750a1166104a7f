<?php

declare(strict_types=1);

namespace App\Reference\Request;

use Symfony\Component\Validator\Constraints as Assert;

/**
 * A system of the project's own: a text (WKT2 or PROJ), or a method with parameters over a geodetic system. Angles in
 * degrees, lengths in metres.
 */
final readonly class CustomSystemRequest
{
    /** @param array<string, float> $parameters by EPSG parameter code */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 160)]
        public string $name,
        #[Assert\Length(max: 20000)]
        public string $definition = '',
        public int $method = 0,
        #[Assert\Length(max: 20)]
        public string $geodetic = 'EPSG:4258',
        #[Assert\Count(max: 12)]
        public array $parameters = [],
        public ?float $lat = null,
        public ?float $lon = null,
    ) {
    }
}
