<?php

declare(strict_types=1);

namespace App\Result;

/** What a computation gives to be kept. */
final readonly class Outcome
{
    /**
     * @param array<string, mixed> $settings what it was computed with
     * @param array<string, mixed> $summary  figures shown without opening the output
     * @param string               $output   its bytes in the file store, or a hash of its values
     */
    public function __construct(
        public string $slot,
        public string $kind,
        public string $label,
        public Basis $basis,
        public array $settings,
        public array $summary,
        public string $output,
    ) {
    }
}
