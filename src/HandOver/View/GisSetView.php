<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** A hand-over to information systems as it is defined, and what was written of it. */
final readonly class GisSetView
{
    /**
     * @param list<string>                          $roles
     * @param list<string>                          $codes
     * @param list<array{file: int, layer: string}> $layers
     * @param list<string>                          $attributes
     * @param list<ExportView>                      $files      newest first
     */
    public function __construct(
        public int $id,
        public int $version,
        public string $name,
        public string $format,
        public array $roles,
        public array $codes,
        public ?float $plan,
        public ?float $up,
        public bool $unknown,
        public array $layers,
        public array $attributes,
        public string $system,
        public array $files,
    ) {
    }
}
