<?php

declare(strict_types=1);

namespace App\Export;

/** The triangles of a surface as they are handed over; metres. */
final readonly class DrawnTriangles
{
    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     * @param list<int>   $triangles three corners each
     */
    public function __construct(public string $surface, public array $x, public array $y, public array $z, public array $triangles)
    {
    }
}
