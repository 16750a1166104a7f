<?php

declare(strict_types=1);

namespace App\Baselines\Request;

use App\Baselines\Base\RightPosition;
use Symfony\Component\Validator\Constraints as Assert;

/**
 * A base whose position or antenna height was wrong, and what was measured from it. Metres; degrees where the right position is
 * given as latitude and longitude.
 */
final readonly class BaseRequest
{
    /**
     * @param list<int> $files   of points that were measured from the base
     * @param string    $what    position or antenna
     * @param float     $usedE   easting the base had in the survey, in the project
     * @param string    $form    grid, geographic or geocentric: how the right position is given
     * @param string    $frame   "project", or the code of its system
     * @param ?float    $first   easting, latitude or X
     * @param string    $heights ellipsoidal or geoid
     * @param ?float    $epoch   decimal year of the right position
     * @param ?float    $antennaUsed metres above the mark
     */
    public function __construct(
        #[Assert\Count(min: 1, max: 500)]
        public array $files,
        #[Assert\Choice(['position', 'antenna'])]
        public string $what,
        public float $usedE,
        public float $usedN,
        public float $usedH,
        #[Assert\Choice(RightPosition::FORMS)]
        public string $form = RightPosition::GRID,
        #[Assert\Regex('/^(project|EPSG:[0-9]{4,6})$/')]
        public string $frame = 'project',
        public ?float $first = null,
        public ?float $second = null,
        public ?float $third = null,
        #[Assert\Choice(['ellipsoidal', 'geoid'])]
        public string $heights = 'ellipsoidal',
        #[Assert\Range(min: 1980, max: 2100)]
        public ?float $epoch = null,
        #[Assert\Range(min: 0, max: 50)]
        public ?float $antennaUsed = null,
        #[Assert\Range(min: 0, max: 50)]
        public ?float $antennaRight = null,
        #[Assert\Length(max: 200)]
        public string $reason = '',
    ) {
    }
}
