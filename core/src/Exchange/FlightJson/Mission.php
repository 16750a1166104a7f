<?php

declare(strict_types=1);

namespace Mensura\Exchange\FlightJson;

/** A photo flight as its mission says it. Metres, degrees, pixels. */
final readonly class Mission
{
    /**
     * @param string                    $system   "EPSG:n" of the positions; empty for the project's own
     * @param ?string                   $heights  "ellipsoidal" or "geoid"; null where nothing is said
     * @param list<float>               $camera   in the order of {@see \Mensura\Image\Lens::NAMES}
     * @param list<int>                 $solved   which of them are solved
     * @param array{float, float}       $sd       of positions, plan and height
     * @param float                     $above    height above ground
     * @param list<string>              $files    names of the images
     * @param list<array{float, float, float}> $positions e, n, h of each
     * @param list<?list<float>>        $angles   omega, phi, kappa of each; null where nothing is said
     */
    public function __construct(
        public string $name, public string $system, public ?string $heights, public array $camera, public array $solved, public int $width,
        public int $height, public array $sd, public float $above, public array $files, public array $positions, public array $angles,
    ) {
    }
}
