<?php

declare(strict_types=1);

namespace App\Baselines\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Rover features to be corrected: from which references, and where those are. Metres in the project. */
final readonly class FeaturesRequest
{
    /**
     * @param list<int> $references occupations
     * @param string    $position   header, mark or typed: where the reference is taken to be
     * @param string    $mark       of the project
     */
    public function __construct(
        public int $file,
        #[Assert\Count(min: 1, max: 200)]
        public array $references,
        #[Assert\Choice(['header', 'mark', 'typed'])]
        public string $position = 'header',
        public string $mark = '',
        public ?float $e = null,
        public ?float $n = null,
        public ?float $h = null,
    ) {
    }
}
