<?php

declare(strict_types=1);

namespace App\Intake\View;

/** Something odd about a file. Severity: error or warning. */
final readonly class FindingView
{
    public function __construct(
        public string $severity,
        public ?int $line,
        public string $message,
    ) {
    }
}
