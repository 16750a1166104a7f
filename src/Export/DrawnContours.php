<?php

declare(strict_types=1);

namespace App\Export;

/** Contours of a surface. Metres. */
final readonly class DrawnContours
{
    /**
     * @param list<array{h: float, length: float, lines: list<list<float>>}> $levels lines as x, y, x, y ...
     * @param int                                                            $index  every which is an index contour
     */
    public function __construct(public string $surface, public float $interval, public array $levels, public int $index = 5)
    {
    }
}
