<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Marks along a traverse; without stations, the first that is found. Allowed: arc seconds by root of the angles, and one in so many. */
final readonly class TraverseRequest
{
    /** @param list<string> $stations */
    public function __construct(
        #[Assert\Length(max: 60)]
        public string $back = '',
        #[Assert\Count(max: 400), Assert\All([new Assert\Type('string'), new Assert\NotBlank(), new Assert\Length(max: 60)])]
        public array $stations = [],
        #[Assert\Length(max: 60)]
        public string $fore = '',
        #[Assert\Range(min: 0.01, max: 36000)]
        public float $angular = 15.0,
        #[Assert\Range(min: 10, max: 10000000)]
        public float $ratio = 10000.0,
    ) {
    }
}
