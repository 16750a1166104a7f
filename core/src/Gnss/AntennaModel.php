<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * Where the phases of an antenna are received, against its reference point: a mean offset for every frequency, and its variation
 * with the zenith angle (ANTEX 1.4, Rothacher and Schmid 2010). Metres.
 */
final readonly class AntennaModel
{
    /**
     * @param array<string, array{float, float, float}> $offset    north, east, up by frequency, as G01
     * @param array<string, list<float>>                $variation by frequency, at equal steps of the zenith angle
     * @param float                                     $first     zenith angle of the first, degrees
     * @param float                                     $step      degrees
     */
    public function __construct(
        public string $type, public array $offset, public array $variation, public float $first, public float $step,
    ) {
    }

    /**
     * What a phase is longer by than the range to the reference point: the variation, less the offset along the sight.
     *
     * @param float $azimuth   radians
     * @param float $elevation radians
     *
     * @return ?float null for a frequency that is not calibrated
     */
    public function excess(string $frequency, float $azimuth, float $elevation): ?float
    {
        $offset = $this->offset[$frequency] ?? null;
        if (null === $offset) {
            return null;
        }
        [$north, $east, $up] = $offset;
        $along = cos($elevation) * (cos($azimuth) * $north + sin($azimuth) * $east) + sin($elevation) * $up;
        $list = $this->variation[$frequency] ?? [];
        if ([] === $list || $this->step <= 0.0) {
            return -$along;
        }
        $at = max(0.0, min(\count($list) - 1.0, (90.0 - rad2deg($elevation) - $this->first) / $this->step));
        $low = min(\count($list) - 2, (int) floor($at));
        $one = $list[max(0, $low)];
        $two = $list[max(0, $low) + 1] ?? $one;

        return $one + ($at - max(0, $low)) * ($two - $one) - $along;
    }
}
