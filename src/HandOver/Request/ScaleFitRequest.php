<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A window for which a scale is looked for; millimetres, degrees. */
final readonly class ScaleFitRequest
{
    public function __construct(
        public int $view,
        #[Assert\Range(min: 10, max: 2000)]
        public float $width,
        #[Assert\Range(min: 10, max: 2000)]
        public float $height,
        #[Assert\Range(min: -360, max: 360)]
        public float $rotation = 0.0,
    ) {
    }
}
