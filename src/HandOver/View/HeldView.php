<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** What a package holds, read back from its zip. */
final readonly class HeldView
{
    /**
     * @param list<string>                                                                                    $leftOut
     * @param list<array{kind: string, name: string, count: int, file: string, from: string, why: string}>    $items    why it does not hold
     * @param list<array{name: string, colour: string, lines: int}>                                           $layers
     * @param list<array{name: string, faces: int, low: float, high: float, box: list<float>}> $surfaces
     */
    public function __construct(
        public string $name,
        public string $project,
        public string $made,
        public string $system,
        public string $heights,
        public string $checked,
        public array $leftOut,
        public array $items,
        public array $layers,
        public array $surfaces,
    ) {
    }
}
