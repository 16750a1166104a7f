<?php

declare(strict_types=1);

namespace App\Survey;

/** A point of a file, brought into the project's system. Metres; what is held and the standard deviations are of control. */
final readonly class ImportedPoint
{
    public function __construct(
        public int $line,
        public string $name,
        public string $code,
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
