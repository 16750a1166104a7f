<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** A baseline measured twice, and the later less the earlier. Metres. */
final readonly class VectorRepeat
{
    /**
     * @param array{int, int}            $vectors
     * @param array{string, string}      $sessions
     * @param array{float, float, float} $difference east, north, up
     */
    public function __construct(
        public string $from, public string $to, public array $vectors, public array $sessions, public float $length,
        public array $difference, public float $allowed,
    ) {
    }

    public function size(): float
    {
        return sqrt($this->difference[0] ** 2 + $this->difference[1] ** 2 + $this->difference[2] ** 2);
    }
}
