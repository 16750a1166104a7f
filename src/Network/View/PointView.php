<?php

declare(strict_types=1);

namespace App\Network\View;

/** A point of the project; metres. Given values and sd belong to control. */
final readonly class PointView
{
    public function __construct(
        public int $id,
        public string $name,
        public string $role,
        public string $source,
        public string $code,
        public ?float $e,
        public ?float $n,
        public ?float $h,
        public ?float $givenE,
        public ?float $givenN,
        public ?float $givenH,
        public string $held,
        public ?float $sdE,
        public ?float $sdN,
        public ?float $sdH,
        public ?string $file,
        public ?int $line,
        public string $known,
    ) {
    }
}
