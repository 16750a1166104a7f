<?php

declare(strict_types=1);

namespace App\Reference\View;

/** Everything between two points, with where each figure comes from. Lengths in metres, angles in degrees. */
final readonly class InverseView
{
    /**
     * @param list<array{label: string, value: float|null, kind: string, source: string}> $rows kind: length, angle, factor, ppm
     * @param list<array{label: string, from: float|null, to: float|null, kind: string, source: string}> $ends
     */
    public function __construct(
        public string $from,
        public string $to,
        public array $rows,
        public array $ends,
    ) {
    }
}
