<?php

declare(strict_types=1);

namespace App\Reference\View;

/** What a change of reference would do. */
final readonly class MovePreview
{
    /**
     * @param list<MovedRow>      $rows
     * @param list<CandidateView> $candidates between the two datums
     * @param list<string>        $warnings
     */
    public function __construct(
        public string $operation,
        public ?float $accuracy,
        public array $rows,
        public int $moved,
        public int $localOnly,
        public array $candidates,
        public array $warnings,
        public string $problem,
    ) {
    }
}
