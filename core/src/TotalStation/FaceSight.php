<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

/** A face pair, or a pointing without its pair brought to what the pair would have read. Degrees, metres. */
final class FaceSight
{
    /** @param int $pointings 2 for a pair */
    public function __construct(
        public readonly string $round,
        public readonly int $target,
        public float $direction,
        public float $zenith,
        public readonly ?float $slope,
        public readonly int $pointings,
        public readonly int $face,
    ) {
    }

    public function isPair(): bool
    {
        return 2 === $this->pointings;
    }
}
