<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** Hand-overs to information systems, and what can be chosen for one. */
final readonly class GisView
{
    /**
     * @param list<GisSetView>                                                    $sets
     * @param list<array{key: string, name: string}>                              $formats
     * @param list<string>                                                        $attributes
     * @param list<array{role: string, points: int}>                              $roles
     * @param list<string>                                                        $codes
     * @param list<array{file: int, fileName: string, layer: string, lines: int}> $layers
     */
    public function __construct(
        public array $sets,
        public array $formats,
        public array $attributes,
        public array $roles,
        public array $codes,
        public array $layers,
    ) {
    }
}
