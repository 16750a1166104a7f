<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What is typed for one instrument set-up, and for the book as a whole: degrees Celsius, hectopascal, percent, metres, micrometres. */
final readonly class BookRequest
{
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 90)]
        public string $setup,
        #[Assert\Choice(['pointings', 'means'])]
        public string $mode,
        #[Assert\Choice(['rounds', 'a-priori'])]
        public string $precision,
        #[Assert\Range(min: -60, max: 70)]
        public ?float $temperature = null,
        #[Assert\Range(min: 300, max: 1200)]
        public ?float $pressure = null,
        #[Assert\Range(min: 0, max: 100)]
        public ?float $humidity = null,
        #[Assert\Range(min: -1, max: 1)]
        public float $prism = 0.0,
        #[Assert\Range(min: 0, max: 1000)]
        public ?float $referenceRefractivity = null,
        #[Assert\Range(min: 0.2, max: 20)]
        public float $wavelength = 0.658,
        /** This set-up alone, all of its file, or every one of the book. */
        #[Assert\Choice(['one', 'file', 'all'])]
        public string $scope = 'one',
    ) {
    }
}
