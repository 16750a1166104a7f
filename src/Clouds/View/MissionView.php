<?php

declare(strict_types=1);

namespace App\Clouds\View;

/** A mission where the project has it: what its images show of the ground. Metres. */
final readonly class MissionView
{
    /**
     * @param bool    $isGroup    whether a rover took the images, looking about
     * @param bool    $isOriented whether its images are where an adjustment found them
     * @param int     $missing    images that have not come in
     * @param float   $pixel      on the ground
     * @param float   $area       shown by an image at least, square metres
     * @param float   $threefold  share of it that three images show
     * @param ?float  $forward    share of an image that the next shows too
     * @param list<array{
     *     file: string, photo: ?int, e: float, n: float, h: float, footprint: list<array{float, float}>,
     * }> $images
     * @param array{e: list<float>, n: list<float>, count: list<int>, size: float} $cover
     */
    public function __construct(
        public int $id, public string $name, public bool $isGroup, public int $width, public int $height, public float $above,
        public bool $isOriented,
        public int $missing, public float $pixel, public float $area, public float $threefold, public ?float $forward, public array $images,
        public array $cover,
    ) {
    }
}
