<?php

declare(strict_types=1);

namespace App\Design\Request;

use App\Design\DesignFiles;
use Symfony\Component\Validator\Constraints as Assert;

/** Corners of a drawing that become points. */
final readonly class TakePointsRequest
{
    /**
     * @param list<int> $corners in the order of their names
     * @param string    $prefix  of the names; numbers follow
     * @param string    $unit    of the drawing; empty for metres
     */
    public function __construct(
        #[Assert\Count(min: 1, max: 20000), Assert\All([new Assert\Type('int')])]
        public array $corners,
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 40)]
        public string $prefix,
        #[Assert\Length(max: 60)]
        public string $code = '',
        #[Assert\Choice(DesignFiles::UNITS)]
        public string $unit = '',
    ) {
    }
}
