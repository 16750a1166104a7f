<?php

declare(strict_types=1);

namespace App\Terrain\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Surfaces and points cut along a line: drawn, or an alignment of a file. Metres. */
final readonly class SectionRequest
{
    /**
     * @param ?int              $number    of the section that is cut anew; null for a new one
     * @param list<int>         $surfaces
     * @param list<list<float>> $line      easting and northing of its vertices; empty for an alignment
     * @param int               $file      with the alignment
     * @param string            $alignment its name
     * @param float             $offset    within which points are shown; 0 for none
     * @param float             $every     at which a cross-section is cut; 0 for none
     * @param float             $half      of a cross-section, to either side
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Count(min: 1, max: 12), Assert\All([new Assert\Type('int')])]
        public array $surfaces,
        public ?int $number = null,
        #[Assert\Count(max: 2000), Assert\All([
            new Assert\Type('list'), new Assert\Count(exactly: 2), new Assert\All([new Assert\Type(['float', 'int'])]),
        ])]
        public array $line = [],
        public int $file = 0,
        #[Assert\Length(max: 200)]
        public string $alignment = '',
        #[Assert\Range(min: 0, max: 1000)]
        public float $offset = 0.0,
        #[Assert\Range(min: 0, max: 10000)]
        public float $every = 0.0,
        #[Assert\Range(min: 0.1, max: 1000)]
        public float $half = 10.0,
    ) {
    }
}
