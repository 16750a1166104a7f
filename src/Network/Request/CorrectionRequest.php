<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What to put right in observations, with a reason. */
final readonly class CorrectionRequest
{
    /** @param list<array{id: int, field: string, add?: float, to?: string}> $changes */
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 40)]
        public string $cause,
        #[Assert\NotBlank, Assert\Length(max: 300)]
        public string $words,
        #[Assert\Count(min: 1, max: 20000)]
        public array $changes,
        #[Assert\Length(max: 400)]
        public string $reason = '',
    ) {
    }
}
