<?php

declare(strict_types=1);

namespace App\Intake\View;

/** A kind of file. */
final readonly class KindView
{
    public function __construct(
        public string $key,
        public string $label,
    ) {
    }
}
