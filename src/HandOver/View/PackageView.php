<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** A package as it is defined, and the newest that was written of it. */
final readonly class PackageView
{
    /**
     * @param list<int>                                             $surfaces
     * @param list<string>                                          $roles
     * @param list<string>                                          $codes
     * @param list<array{file: int, layer: string, colour: string}> $layers
     * @param list<array{file: int, name: string}>                  $alignments
     * @param list<ExportView>                                      $files      every version that was written, the newest first
     */
    public function __construct(
        public int $id,
        public int $version,
        public string $name,
        public array $surfaces,
        public array $roles,
        public array $codes,
        public array $layers,
        public array $alignments,
        public int $localization,
        public int $geoid,
        public array $files,
    ) {
    }
}
