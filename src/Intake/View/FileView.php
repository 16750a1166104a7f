<?php

declare(strict_types=1);

namespace App\Intake\View;

/** A file of the project. */
final readonly class FileView
{
    public function __construct(
        public int $id,
        public string $name,
        public int $size,
        public string $sha256,
        public string $kind,
        public string $kindLabel,
        public string $state,
        public int $records,
        public int $leftOut,
        public string $author,
        public string $receivedAt,
        public ?string $acceptedAt,
    ) {
    }
}
