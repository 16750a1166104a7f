<?php

declare(strict_types=1);

namespace App\Project\View;

/** How quantities are shown. Length: m, ft or ftUS; angle: dms, deg or gon. */
final readonly class UnitsView
{
    public function __construct(
        public string $length,
        public string $angle,
        public int $decimals,
    ) {
    }
}
