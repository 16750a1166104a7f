<?php

declare(strict_types=1);

namespace App\Clouds\View;

/** Heights and an orthoimage of a flight. Metres. */
final readonly class OrthoView
{
    /**
     * @param int                                                $flight       number of the flight
     * @param float                                              $completeness share of the cells that have a height
     * @param list<float>                                        $box          west, south, east, north
     * @param list<array{id: string, role: string, off: float}>  $known        heights of the model minus those of points
     * @param list<string>                                       $stale
     */
    public function __construct(
        public int $number, public string $name, public int $flight, public string $of, public float $cell, public float $pixel,
        public int $columns, public int $rows, public float $completeness, public array $box, public array $known, public int $run,
        public string $output, public string $at, public string $author, public array $stale,
    ) {
    }
}
