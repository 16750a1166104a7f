<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What stands at the head of reports: up to four lines. */
final readonly class LetterheadRequest
{
    public function __construct(
        #[Assert\Length(max: 400)]
        public string $letterhead,
    ) {
    }
}
