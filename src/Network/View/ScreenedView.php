<?php

declare(strict_types=1);

namespace App\Network\View;

/** What screening proposes to set aside. */
final readonly class ScreenedView
{
    public function __construct(
        public int $id,
        public ?string $component,
        public int $pass,
        public float $standardized,
        public string $text,
    ) {
    }
}
