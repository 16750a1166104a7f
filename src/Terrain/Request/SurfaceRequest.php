<?php

declare(strict_types=1);

namespace App\Terrain\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A surface: which points, which lines, how contoured. */
final readonly class SurfaceRequest
{
    /**
     * @param list<string> $roles
     * @param list<string> $codes
     * @param list<string> $exclude
     * @param string       $pattern of point names
     * @param list<list<list<float>>> $areas
     * @param list<string> $include
     * @param string       $crossing what is done where breaklines cross at different heights
     * @param ?array{file: int, layers?: list<string>, faces?: list<int>, unit?: string} $design whose faces are the surface
     * @param ?array{file: int, classes?: list<int>, spacing?: ?float} $cloud whose points are taken too
     * @param list<array{file: int, layers?: list<string>, unit?: string, role?: string}> $drawn whose lines shape it
     * @param list<array{role: string, name: string, points: list<string>, vertices: list<list<float>>}> $lines
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 120)]
        public string $name,
        public array $roles = [],
        public array $codes = [],
        public array $exclude = [],
        #[Assert\Count(max: 2000)]
        public array $lines = [],
        #[Assert\Positive]
        public ?float $maxEdge = null,
        #[Assert\Range(min: 0.001, max: 1000)]
        public float $interval = 1.0,
        #[Assert\Length(max: 400)]
        public string $pattern = '',
        #[Assert\Count(max: 100)]
        public array $areas = [],
        #[Assert\Count(max: 100000)]
        public array $include = [],
        #[Assert\Range(min: 1, max: 100)]
        public int $index = 5,
        public bool $smooth = false,
        #[Assert\Choice(['refuse', 'mean'])]
        public string $crossing = 'refuse',
        public ?array $design = null,
        #[Assert\Count(max: 50)]
        public array $drawn = [],
        public ?array $cloud = null,
    ) {
    }
}
