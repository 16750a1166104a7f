<?php

declare(strict_types=1);

namespace Mensura\Earthworks;

use Mensura\Fault\UnusableInput;

/**
 * What has to be carried for a cut and a fill measured in place (common practice): cut is in the bank, fill is compacted.
 * Native material of the cut goes into the fill first; what is over goes away, what is short is brought in.
 */
final readonly class Haul
{
    private function __construct(
        /** Volume of the cut on the lorries, cubic metres. */
        public float $looseCut,
        /** Mass of the cut, tonnes. */
        public float $massCut,
        /** Fill the cut makes when it is compacted, cubic metres. */
        public float $makes,
        /** Bank volume the whole fill takes, cubic metres. */
        public float $bankForFill,
        /** What has to be carried over the fence, loose: positive away, negative in. */
        public float $looseOver,
        /** Its mass, tonnes, with its sign. */
        public float $massOver,
        /** Loads of that, whole ones. */
        public int $loads,
    ) {
    }

    /**
     * Brought-in material makes the whole fill, and none of the cut.
     *
     * @param float $cut      cubic metres
     * @param float $fill     cubic metres
     * @param float $capacity of a lorry, cubic metres loose
     *
     * @throws UnusableInput
     */
    public static function of(Material $m, float $cut, float $fill, float $capacity): self
    {
        if (!($capacity > 0.0)) {
            throw new UnusableInput('/capacity', 'of a lorry must be more than 0');
        }
        $bankForFill = $fill / $m->shrink;
        $over = ($m->isNative ? $cut : 0.0) - $bankForFill;

        return new self(
            $cut * $m->swell, $cut * $m->density, $cut * $m->shrink, $bankForFill, $over * $m->swell, $over * $m->density,
            (int) ceil(abs($over) * $m->swell / $capacity - 1e-9),
        );
    }
}
