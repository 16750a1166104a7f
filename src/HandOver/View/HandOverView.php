<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** The hand-over stage. */
final readonly class HandOverView
{
    /**
     * @param list<ExportView> $exports
     * @param list<ExportView> $archive
     */
    public function __construct(
        public array $exports,
        public array $archive,
    ) {
    }
}
