<?php

declare(strict_types=1);

namespace App\Design\View;

/** What a file draws, as the file holds it, in drawing units: corners, and what is made of them by their numbers. */
final readonly class DrawingView
{
    /**
     * @param list<float>     $x
     * @param list<float>     $y
     * @param list<float>     $z
     * @param list<int>       $triangles   three corners each
     * @param list<int>       $faceOf      face of the drawing each triangle is a part of
     * @param list<string>    $layers      names
     * @param list<int>       $faceLayer   number of the layer of each face
     * @param list<list<int>> $lines       corners of each
     * @param list<int>       $lineLayer   number of the layer of each line
     * @param list<int>       $points      corners that are points
     * @param list<int>       $pointLayer  number of the layer of each point
     */
    public function __construct(
        public int $id, public string $name, public array $x, public array $y, public array $z, public array $triangles,
        public array $faceOf, public array $layers, public array $faceLayer, public array $lines, public array $lineLayer,
        public array $points, public array $pointLayer,
    ) {
    }
}
