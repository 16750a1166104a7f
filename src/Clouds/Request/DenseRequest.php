<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Dense points of adjusted flights or groups of images, and the cloud that is made of them. Metres. */
final readonly class DenseRequest
{
    /**
     * @param list<int> $flights numbers of them
     * @param ?float    $spacing of the points; null for what suits the pixels
     * @param ?int      $number  of what is made anew; null for a new one
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Count(min: 1, max: 20), Assert\Unique, Assert\All([new Assert\Type('int'), new Assert\Positive()])]
        public array $flights,
        #[Assert\Range(min: 0.002, max: 100)]
        public ?float $spacing = null,
        public ?int $number = null,
    ) {
    }
}
