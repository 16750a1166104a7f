<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** A section as it was cut; its drawing lies apart. Metres. */
final readonly class SectionView
{
    /**
     * @param list<int>         $surfaces
     * @param list<list<float>> $line
     * @param ?float            $low      of all that is cut; null where the line crosses nothing
     * @param list<string>      $stale
     */
    public function __construct(
        public int $number, public string $name, public array $surfaces, public array $line, public int $file, public string $alignment,
        public float $offset, public float $every, public float $half, public float $length, public float $start, public ?float $low,
        public ?float $high, public int $points, public int $crosses, public string $output, public int $run, public string $at,
        public string $author, public array $stale,
    ) {
    }
}
