<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

/** An instrument over a station, and what was pointed at from there, in the order of the book. */
final readonly class Setup
{
    /**
     * @param float          $instrumentHeight metres above the mark
     * @param ?Weather       $weather          null: distances stand as they are
     * @param list<Pointing> $pointings
     */
    public function __construct(
        public string $id,
        public string $station,
        public float $instrumentHeight,
        public ?Weather $weather,
        public array $pointings,
    ) {
    }
}
