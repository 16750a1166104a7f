<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What is made of an adjusted flight: heights and an orthoimage. Metres. */
final readonly class OrthoRequest
{
    /**
     * @param int    $flight number of the adjusted flight
     * @param ?int   $number of what is made anew; null for a new one
     * @param ?float $cell   of the heights; null for four ground pixels
     * @param ?float $pixel  of the orthoimage; null for one ground pixel
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Positive]
        public int $flight,
        public ?int $number = null,
        #[Assert\Range(min: 0.005, max: 100)]
        public ?float $cell = null,
        #[Assert\Range(min: 0.002, max: 100)]
        public ?float $pixel = null,
    ) {
    }
}
