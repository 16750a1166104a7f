<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** A file that was handed over, and its receipt. */
final readonly class ExportView
{
    /**
     * @param list<CheckView> $checks
     * @param list<string> $leftOut
     * @param list<string> $stale
     * @param string       $sha256 of its bytes
     * @param list<string> $inputs what it was made of, in words
     */
    public function __construct(
        public int $id,
        public string $slot,
        public string $kind,
        public string $label,
        public string $name,
        public int $size,
        public int $run,
        public string $createdAt,
        public string $author,
        public bool $holds,
        public array $checks,
        public array $leftOut,
        public array $stale,
        public string $sha256,
        public array $inputs,
    ) {
    }
}
