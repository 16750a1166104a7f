<?php

declare(strict_types=1);

namespace App\Survey;

/** What is given about a control mark: metres, components held of "enh", standard deviations of the others. */
final readonly class Given
{
    public function __construct(
        public ?float $e,
        public ?float $n,
        public ?float $h,
        public string $held = '',
        public ?float $sdE = null,
        public ?float $sdN = null,
        public ?float $sdH = null,
    ) {
    }
}
