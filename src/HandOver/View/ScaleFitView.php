<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** Scales at which what a view shows fits a window, and the middle of it; metres. */
final readonly class ScaleFitView
{
    /** @param list<float> $scales denominators, the largest drawing first */
    public function __construct(public array $scales, public float $e, public float $n)
    {
    }
}
