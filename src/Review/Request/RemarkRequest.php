<?php

declare(strict_types=1);

namespace App\Review\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What is said about a result, a station or a file. */
final readonly class RemarkRequest
{
    /** @param string $about the place of a result, or "point:NAME" */
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 160), Assert\Regex('/^[^\p{C}]+$/uD')]
        public string $about,
        #[Assert\Length(max: 4000)]
        public string $text = '',
        #[Assert\PositiveOrZero]
        public int $answers = 0,
        public bool $checks = false,
    ) {
    }
}
