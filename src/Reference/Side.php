<?php

declare(strict_types=1);

namespace App\Reference;

use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GeoidGrid;

/** One meaning of coordinates: a system, and the geoid heights are above; ellipsoidal without one. */
final readonly class Side
{
    public function __construct(public HorizontalSystem $system, public ?GeoidGrid $geoid)
    {
    }
}
