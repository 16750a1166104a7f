<?php

declare(strict_types=1);

namespace App\Survey;

/** An observation of a file. Degrees and metres; the three components of a vector in v1 to v3. */
final readonly class ImportedObservation
{
    /**
     * @param ?list<list<float>> $covariance of a vector, square metres
     * @param ?string            $weather    degrees Celsius, hectopascal and percent, with semicolons between
     */
    public function __construct(
        public int $line,
        public string $kind,
        public string $set,
        public string $from,
        public string $to,
        public float $v1,
        public ?float $v2 = null,
        public ?float $v3 = null,
        public float $hi = 0.0,
        public float $ht = 0.0,
        public ?array $covariance = null,
        public ?string $back = null,
        public ?float $length = null,
        public ?int $face = null,
        public ?int $round = null,
        public ?\DateTimeImmutable $observedAt = null,
        public ?string $weather = null,
    ) {
    }
}
