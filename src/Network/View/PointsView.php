<?php

declare(strict_types=1);

namespace App\Network\View;

/** All points of a project. */
final readonly class PointsView
{
    /**
     * @param list<PointView> $points
     */
    public function __construct(
        public array $points,
    ) {
    }
}
