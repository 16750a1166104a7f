<?php

declare(strict_types=1);

namespace App\Reference\Request;

use Symfony\Component\Validator\Constraints as Assert;

/**
 * A low-distortion design: the site's ellipsoidal height in metres; a name keeps it. Corners in degrees where the project
 * has no points; geodetic is the system that the design for a plane project is on.
 */
final readonly class DesignRequest
{
    public function __construct(
        #[Assert\Range(min: -500, max: 9000)]
        public float $height,
        #[Assert\Length(max: 160)]
        public string $name = '',
        public ?float $south = null,
        public ?float $west = null,
        public ?float $north = null,
        public ?float $east = null,
        #[Assert\Regex('/^EPSG:\d{4,6}$/')]
        public string $geodetic = 'EPSG:4258',
    ) {
    }
}
