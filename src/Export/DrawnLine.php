<?php

declare(strict_types=1);

namespace App\Export;

/** A line of a surface. Metres. */
final readonly class DrawnLine
{
    /**
     * @param string                            $role     "breakline", "boundary" or "void"
     * @param list<array{float, float, float}> $vertices
     * @param bool                              $isFlat   drawn by hand, so without heights
     */
    public function __construct(
        public string $role,
        public string $surface,
        public array $vertices,
        public bool $isClosed,
        public bool $isFlat,
    ) {
    }
}
