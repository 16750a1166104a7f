<?php

declare(strict_types=1);

namespace App\Intake\View;

/** A question about a waiting file. Key: heights, geoid, swap, sign or far; offer is the answer a yes gives to sign. */
final readonly class AskView
{
    public function __construct(
        public string $key,
        public string $text,
        public string $offer,
    ) {
    }
}
