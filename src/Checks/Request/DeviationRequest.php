<?php

declare(strict_types=1);

namespace App\Checks\Request;

use App\Checks\DeviationSettings;
use App\Design\DesignFiles;
use Symfony\Component\Validator\Constraints as Assert;

/** Measured points held against a reference. Metres. */
final readonly class DeviationRequest
{
    /**
     * @param ?int         $number         of the comparison that is made anew; null for a new one
     * @param string       $measuredOn     day of the measurement, as 2031-05-04; empty where it is not said
     * @param list<string> $codes          of the measured points; empty for all
     * @param string       $pattern        of their names, with * and ?; empty for all
     * @param int          $surface        that is the reference
     * @param int          $design         file whose faces are the reference
     * @param list<string> $layers         of the design; empty for all
     * @param list<string> $planeCodes     of the points the plane goes through; empty for the measured ones
     * @param string       $unit           of the design's drawing; empty where it is not said
     * @param ?float       $ignore         greatest size that counts
     * @param string       $measured       what is measured: points, the vertices of a surface, or a point cloud
     * @param int          $cloud          file whose points are the reference
     * @param ?float       $radius         within which a plane is fitted through a reference cloud; null for three mean spacings
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Choice(DeviationSettings::REFERENCES)]
        public string $reference,
        #[Assert\Choice(['vertical', 'normal'])]
        public string $along,
        public ?int $number = null,
        #[Assert\Regex('/^(\d{4}-\d{2}-\d{2})?$/')]
        public string $measuredOn = '',
        #[Assert\All([new Assert\Type('string'), new Assert\Length(max: 120)])]
        public array $codes = [],
        #[Assert\Length(max: 80)]
        public string $pattern = '',
        public int $surface = 0,
        public int $design = 0,
        #[Assert\All([new Assert\Type('string'), new Assert\Length(max: 255)])]
        public array $layers = [],
        #[Assert\All([new Assert\Type('string'), new Assert\Length(max: 120)])]
        public array $planeCodes = [],
        #[Assert\Range(min: -1e5, max: 1e5)]
        public float $elevation = 0.0,
        #[Assert\PositiveOrZero, Assert\LessThan(1e6)]
        public ?float $ignore = null,
        #[Assert\Choice(DesignFiles::UNITS)]
        public string $unit = '',
        #[Assert\Choice(DeviationSettings::MEASURED)]
        public string $measured = DeviationSettings::POINTS,
        public int $measuredSurface = 0,
        public int $measuredCloud = 0,
        public int $cloud = 0,
        #[Assert\Positive, Assert\LessThan(1e4)]
        public ?float $radius = null,
    ) {
    }
}
