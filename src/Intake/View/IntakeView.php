<?php

declare(strict_types=1);

namespace App\Intake\View;

/** The intake stage. */
final readonly class IntakeView
{
    /**
     * @param list<FileView> $files
     */
    public function __construct(
        public array $files,
    ) {
    }
}
