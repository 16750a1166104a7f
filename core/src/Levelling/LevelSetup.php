<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** One setup of a level, reduced: metres. */
final readonly class LevelSetup
{
    /**
     * @param float                        $back          corrected mean reading on the back point
     * @param float                        $fore          likewise
     * @param ?float                       $backLength    null when a sight length is missing
     * @param list<array{string, float}>   $intermediates point and corrected reading
     * @param ?float                       $repeat        the largest disagreement of repeated readings (BBFF) or differences (BFFB)
     * @param bool                         $uncurved      the curvature was asked for and could not be had
     */
    public function __construct(
        public string $backPoint,
        public string $forePoint,
        public float $back,
        public float $fore,
        public ?float $backLength,
        public ?float $foreLength,
        public array $intermediates,
        public ?float $repeat,
        public bool $uncurved,
    ) {
    }

    public function difference(): float
    {
        return $this->back - $this->fore;
    }

    public function length(): ?float
    {
        return null === $this->backLength || null === $this->foreLength ? null : $this->backLength + $this->foreLength;
    }
}
