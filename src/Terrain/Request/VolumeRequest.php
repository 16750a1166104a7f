<?php

declare(strict_types=1);

namespace App\Terrain\Request;

use App\Terrain\Volume\VolumeSettings;
use Symfony\Component\Validator\Constraints as Assert;

/** A surface and what it is compared with. Metres. */
final readonly class VolumeRequest
{
    /**
     * @param ?int                                     $number    of the volume that is computed anew; null for a new one
     * @param int                                      $other     surface it is compared with
     * @param list<list<float>>                        $boundary  easting and northing of its corners; empty for the whole
     * @param float                                    $slice     thickness of the slices
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Positive]
        public int $surface,
        #[Assert\Choice(VolumeSettings::AGAINST)]
        public string $against,
        public ?int $number = null,
        public int $other = 0,
        #[Assert\Range(min: -1e5, max: 1e5)]
        public float $elevation = 0.0,
        #[Assert\Count(max: 2000), Assert\All([
            new Assert\Type('list'), new Assert\Count(exactly: 2), new Assert\All([new Assert\Type(['float', 'int'])]),
        ])]
        public array $boundary = [],
        #[Assert\Range(min: 0.001, max: 1000)]
        public float $slice = 1.0,
    ) {
    }
}
