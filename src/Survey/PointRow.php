<?php

declare(strict_types=1);

namespace App\Survey;

use Mensura\Exchange\Delimited\Measured;

/** A point as it is read by the thousand: the columns of {@see Point} and the name of its file. Metres. */
final readonly class PointRow
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
        public ?int $fileId,
        public ?string $file,
        public ?int $line,
        public string $known,
        public int $version,
        public string $measured,
    ) {
    }

    /** How its file says it was measured. */
    public function measured(): Measured
    {
        return Measured::fromArray('' === $this->measured ? [] : (array) json_decode($this->measured, true, flags: \JSON_THROW_ON_ERROR));
    }

    public function isControl(): bool
    {
        return Point::CONTROL === $this->role;
    }

    public function isCheck(): bool
    {
        return Point::CHECK === $this->role;
    }

    public function isAdjusted(): bool
    {
        return Point::ADJUSTED === $this->source;
    }

    /** Whether it has a place in plan. */
    public function isPlaced(): bool
    {
        return null !== $this->e && null !== $this->n;
    }
}
