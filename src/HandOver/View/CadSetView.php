<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** A hand-over to drawing programs as it is defined, and what was written of it. */
final readonly class CadSetView
{
    /**
     * @param list<string>                                                         $roles
     * @param list<string>                                                         $codes
     * @param list<array{id: int, contours: bool, lines: bool, faces: bool}>       $surfaces
     * @param list<array{file: int, layer: string}>                                $layers
     * @param list<array{file: int, name: string}>                                 $alignments
     * @param list<array{from: string, to: string, colour: string, style: string}> $mapping
     * @param list<array{e: float, n: float}>                                      $within
     * @param list<ExportView>                                                     $files      newest first
     */
    public function __construct(
        public int $id,
        public int $version,
        public string $name,
        public string $format,
        public array $roles,
        public array $codes,
        public bool $blocks,
        public bool $texts,
        public array $surfaces,
        public array $layers,
        public array $alignments,
        public int $catalogue,
        public array $mapping,
        public bool $codeLines,
        public array $within,
        public array $files,
    ) {
    }
}
