<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What a package is to hold. */
final readonly class PackageRequest
{
    /**
     * @param list<int>                                             $surfaces
     * @param list<string>                                          $roles      of points; none for no points
     * @param list<string>                                          $codes      of these; none for all
     * @param list<array{file: int, layer: string, colour: string}> $layers     of drawings, in a colour or as background
     * @param list<array{file: int, name: string}>                  $alignments
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        public array $surfaces = [],
        public array $roles = [],
        public array $codes = [],
        public array $layers = [],
        public array $alignments = [],
        #[Assert\PositiveOrZero]
        public int $localization = 0,
        #[Assert\PositiveOrZero]
        public int $geoid = 0,
    ) {
    }
}
