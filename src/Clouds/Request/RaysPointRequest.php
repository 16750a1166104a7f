<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use App\Clouds\Group\RayFields;
use Symfony\Component\Validator\Constraints as Assert;

/** A place that rays meet at becomes a point. Pixels. */
final readonly class RaysPointRequest
{
    /** @param list<array{image: string, x: float, y: float}> $rays */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 60), Assert\Regex('/^\S+$/', 'A name of a point has no blanks.')]
        public string $name,
        #[Assert\Count(min: 2, max: 500), Assert\All([new RayFields()])]
        public array $rays,
        #[Assert\Length(max: 60)]
        public string $code = '',
    ) {
    }
}
