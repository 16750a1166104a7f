<?php

declare(strict_types=1);

namespace App\Result\View;

/** One step of what a result rests on; depth 0 is the result itself. */
final readonly class LineageView
{
    public function __construct(
        public int $depth,
        public string $text,
        public bool $stale,
    ) {
    }
}
