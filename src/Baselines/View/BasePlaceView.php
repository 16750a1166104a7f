<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A place a base can be given: easting, northing and height of the project, metres. */
final readonly class BasePlaceView
{
    public function __construct(public string $label, public float $e, public float $n, public float $h)
    {
    }
}
