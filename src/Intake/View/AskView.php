<?php

declare(strict_types=1);

namespace App\Intake\View;

/** A question about a waiting file. Key: heights, geoid, swap or far. */
final readonly class AskView
{
    public function __construct(
        public string $key,
        public string $text,
    ) {
    }
}
