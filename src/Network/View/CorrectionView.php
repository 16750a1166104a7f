<?php

declare(strict_types=1);

namespace App\Network\View;

/** A correction that was made to recorded observations. */
final readonly class CorrectionView
{
    /** @param list<int> $observations */
    public function __construct(
        public int $id,
        public string $cause,
        public string $words,
        public string $reason,
        public string $author,
        public string $createdAt,
        public array $observations,
    ) {
    }
}
