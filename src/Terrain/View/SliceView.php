<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** Cut and fill between two depths or two elevations; metres and cubic metres. */
final readonly class SliceView
{
    public function __construct(public float $from, public float $to, public float $cut, public float $fill)
    {
    }
}
