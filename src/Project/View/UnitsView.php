<?php

declare(strict_types=1);

namespace App\Project\View;

/**
 * How quantities are shown. Length: m, ft or ftUS; angle: dms, deg or gon. Decimals of plan coordinates and distances, of heights,
 * of seconds of arc (other notations as fine), of millimetres, and of areas and volumes.
 */
final readonly class UnitsView
{
    public function __construct(
        public string $length,
        public string $angle,
        public int $decimals,
        public int $heights,
        public int $angles,
        public int $small,
        public int $areas,
    ) {
    }
}
