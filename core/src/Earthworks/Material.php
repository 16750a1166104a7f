<?php

declare(strict_types=1);

namespace Mensura\Earthworks;

use Mensura\Fault\UnusableInput;

/** A soil or rock as earthworks reckon with it (common practice): in the bank as it lies, loose on the lorry, compacted in the fill. */
final readonly class Material
{
    /**
     * @param bool  $isNative whether it lies on the site; else it is brought in
     * @param float $swell    loose volume of one cubic metre in the bank, 1 or more
     * @param float $shrink   compacted volume of one cubic metre in the bank
     * @param float $density  in the bank, tonnes a cubic metre
     *
     * @throws UnusableInput naming the field
     */
    public function __construct(
        public string $name, public bool $isNative, public float $swell, public float $shrink, public float $density,
    ) {
        $ranges = ['swell' => [$swell, 1.0, 3.0], 'shrink' => [$shrink, 0.3, 1.5], 'density' => [$density, 0.1, 10.0]];
        foreach ($ranges as $field => [$v, $low, $high]) {
            if (!($v >= $low && $v <= $high)) {
                throw new UnusableInput('/'.$field, \sprintf('of %s lies between %s and %s', $name, $low, $high));
            }
        }
    }
}
