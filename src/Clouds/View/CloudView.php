<?php

declare(strict_types=1);

namespace App\Clouds\View;

/** A cloud that was made; metres. */
final readonly class CloudView
{
    /**
     * @param string             $of      what it is made of, in words
     * @param list<string>       $steps   what was done, in words
     * @param list<int>          $files
     * @param list<int>          $clouds
     * @param list<int>          $passes
     * @param list<int>          $dense
     * @param list<list<float>>  $crop
     * @param list<int>          $keeps   classes that are kept; empty for all
     * @param int                $onto    cloud it was laid onto; 0 for none
     * @param list<array{target: string, e: float, n: float, h: float}> $targets by which it was moved
     * @param ?array{
     *     off: list<array{target: string, role: string, off: list<float>}>, rms: float, shift: list<float>, turn: float, isTilted: bool,
     * } $byTargets given minus seen and moved
     * @param string             $paint        what its points are coloured by; empty as they came
     * @param string             $paintAgainst slot of what they deviate from
     * @param ?array{by: string, against: string, from: float, to: float} $painted
     * @param ?CloudFitView      $fit     how well
     * @param array<string, int> $classes points by class
     * @param list<float>        $extent  west, south, lowest, east, north, highest
     * @param float              $density points a square metre
     * @param ?float             $spacing median distance to the nearest other point
     * @param int                $bytes   of the LAS file it is kept as
     * @param string             $tiles   names the tiles it is looked at by
     * @param list<string>       $stale
     */
    public function __construct(
        public int $number, public string $name, public string $of, public array $steps, public array $files, public array $clouds,
        public array $passes, public array $dense, public array $crop, public bool $outside, public ?float $thin,
        public bool $noise, public bool $ground, public array $keeps,
        public int $onto, public float $within, public ?CloudFitView $fit, public array $targets,
        public ?array $byTargets, public string $paint, public string $paintAgainst, public float $range, public ?array $painted,
        public int $points, public array $classes,
        public array $extent, public float $density, public ?float $spacing,
        public bool $hasColours, public bool $hasIntensities, public int $bytes, public string $tiles, public int $run, public string $at,
        public string $author, public array $stale,
    ) {
    }
}
