<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use App\Clouds\Group\RayFields;
use Symfony\Component\Validator\Constraints as Assert;

/** Where images show a place. Pixels. */
final readonly class RaysRequest
{
    /**
     * @param list<array{image: string, x: float, y: float}> $rays
     * @param bool                                           $find whether the other images are searched for what the first ray shows
     */
    public function __construct(
        #[Assert\Count(min: 1, max: 500), Assert\All([new RayFields()])]
        public array $rays,
        public bool $find = false,
    ) {
    }
}
