<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

/** The mean of all pointings of a setup to one target at one height: degrees and metres. */
final readonly class ReducedTarget
{
    /**
     * @param float  $direction        from the target of the setup's first pointing, 0 to 360
     * @param ?float $slope            with prism constant and atmosphere, null without a distance
     * @param ?float $horizontal       arc at the height of the instrument, on the sphere
     * @param ?float $heightDifference from mark to mark
     * @param string $faces            "both" when a face pair is among the pointings, else "one"
     */
    public function __construct(
        public string $target,
        public float $targetHeight,
        public float $direction,
        public float $zenith,
        public ?float $slope,
        public ?float $horizontal,
        public ?float $heightDifference,
        public string $faces,
        public int $pointings,
    ) {
    }

    /**
     * @return array{target: string, ht: float, direction: float, zenith: float, slope: ?float, horizontal: ?float,
     *     heightDifference: ?float, faces: string, pointings: int}
     */
    public function toArray(): array
    {
        return [
            'target' => $this->target, 'ht' => $this->targetHeight, 'direction' => $this->direction, 'zenith' => $this->zenith,
            'slope' => $this->slope, 'horizontal' => $this->horizontal, 'heightDifference' => $this->heightDifference,
            'faces' => $this->faces, 'pointings' => $this->pointings,
        ];
    }
}
