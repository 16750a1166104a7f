<?php

declare(strict_types=1);

namespace App\Clouds\View;

/** An adjusted photo flight. Metres. */
final readonly class FlightView
{
    /**
     * @param int                          $joined  images that are oriented
     * @param list<string>                 $alone   images that nothing joins to the others
     * @param int                          $left    rays that contradicted the others
     * @param int                          $checks  check points that are seen
     * @param ?list<float>                 $rms     of check points, in plan and in height
     * @param float                        $pixel   on the ground
     * @param list<array{string, string}>  $swapped points whose marks are each other's
     * @param list<array{point: string, image: string, x: float, y: float}> $marks
     * @param list<string>                 $stale
     */
    public function __construct(
        public int $number, public string $name, public string $of, public int $mission, public int $images, public int $joined,
        public array $alone, public int $points, public int $rays, public int $left, public ?float $sigma0, public ?float $freeSigma0,
        public int $control, public bool $isHeld, public int $checks, public ?array $rms, public float $pixel, public array $swapped,
        public bool $converged, public array $marks, public int $run, public string $output, public string $at, public string $author,
        public array $stale,
    ) {
    }
}
