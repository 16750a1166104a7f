<?php

declare(strict_types=1);

namespace App\Intake\View;

/** A line of a file as it was received. */
final readonly class SourceLine
{
    public function __construct(
        public int $line,
        public string $text,
    ) {
    }
}
