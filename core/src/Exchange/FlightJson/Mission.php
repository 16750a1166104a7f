<?php

declare(strict_types=1);

namespace Mensura\Exchange\FlightJson;

/** A photo flight, or a group of images of a rover, as its file says it. Metres, degrees, pixels. */
final readonly class Mission
{
    /**
     * @param string                    $system   "EPSG:n" of the positions; empty for the project's own
     * @param ?string                   $heights  "ellipsoidal" or "geoid"; null where nothing is said
     * @param list<float>               $camera   in the order of {@see \Mensura\Image\Lens::NAMES}
     * @param list<int>                 $solved   which of them are solved
     * @param array{float, float}       $sd       of positions, plan and height
     * @param float                     $above    height above ground; of a group, the distance to what it shows
     * @param list<string>              $files    names of the images
     * @param list<array{float, float, float}> $positions e, n, h of each
     * @param list<?list<float>>        $angles   omega, phi, kappa of each; null where nothing is said
     * @param bool                      $isGroup  whether a rover took them, looking about, not down
     * @param ?array{float, float}      $turnSd   of the angles, tilt and heading; null where they are approximations
     */
    public function __construct(
        public string $name, public string $system, public ?string $heights, public array $camera, public array $solved, public int $width,
        public int $height, public array $sd, public float $above, public array $files, public array $positions, public array $angles,
        public bool $isGroup = false, public ?array $turnSd = null,
    ) {
    }
}
