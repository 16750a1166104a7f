<?php

declare(strict_types=1);

namespace App\Transfer\View;

/** An archive of the project that was written. */
final readonly class WrittenArchive
{
    public function __construct(
        public string $job, public string $at, public int $bytes, public string $fingerprint, public int $files, public string $author,
    ) {
    }
}
