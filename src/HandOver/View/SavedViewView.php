<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** A view of a drawing: what it shows. */
final readonly class SavedViewView
{
    /**
     * @param list<string>                                                        $roles
     * @param list<string>                                                        $codes
     * @param list<array{id: int, contours: bool, lines: bool}>                   $surfaces
     * @param list<array{file: int, layer: string, colour: string, width: float}> $layers
     * @param list<string>                                                        $screenOnly
     * @param string                                                              $locked     hash of what it shows; empty where it follows
     */
    public function __construct(
        public int $id,
        public int $version,
        public string $name,
        public array $roles,
        public array $codes,
        public bool $names,
        public bool $heights,
        public array $surfaces,
        public array $layers,
        public array $screenOnly,
        public float $text,
        public string $locked,
    ) {
    }
}
