<?php

declare(strict_types=1);

namespace App\Survey;

use Mensura\Exchange\Delimited\Measured;

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
        public ?Measured $measured = null,
    ) {
    }

    /** JSON; empty where nothing is said of it. */
    public function measuredText(): string
    {
        return null === $this->measured ? '' : json_encode($this->measured->toArray(), \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE);
    }
}
