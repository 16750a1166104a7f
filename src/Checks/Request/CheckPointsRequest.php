<?php

declare(strict_types=1);

namespace App\Checks\Request;

use App\Checks\CheckPoint\CheckPointSettings;
use Symfony\Component\Validator\Constraints as Assert;

/** Check points held against what was computed. Metres. */
final readonly class CheckPointsRequest
{
    /**
     * @param string $made    slot of a cloud or of heights that were made here, such as "cloud:3"
     * @param ?int   $number  of the check that is made anew; null for a new one
     * @param string $pattern of the names of check points, with * and ?; empty for all
     * @param float  $within  how near another point is that is taken for the check point measured
     * @param ?float $radius  within which a plane is fitted through a cloud; null for three mean spacings
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Choice(CheckPointSettings::AGAINST)]
        public string $against,
        public ?int $number = null,
        #[Assert\Length(max: 80)]
        public string $pattern = '',
        public int $surface = 0,
        public int $cloud = 0,
        #[Assert\Range(min: 0.001, max: 10.0)]
        public float $within = 0.1,
        #[Assert\Positive, Assert\LessThan(1e4)]
        public ?float $radius = null,
        #[Assert\Length(max: 40)]
        public string $made = '',
    ) {
    }
}
