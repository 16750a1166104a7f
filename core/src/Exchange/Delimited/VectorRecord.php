<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** A GNSS vector: geocentric components in metres, covariance in square metres. */
final readonly class VectorRecord
{
    /**
     * @param array{float, float, float} $d
     * @param list<list<float>>          $covariance 3 by 3
     */
    public function __construct(
        public int $line,
        public string $from,
        public string $to,
        public string $session,
        public array $d,
        public array $covariance,
    ) {
    }
}
