<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** The hand-over stage. */
final readonly class HandOverView
{
    /**
     * @param string $letterhead what heads reports, a line each
     * @param list<OfferView> $offers
     * @param list<ExportView> $exports
     * @param list<ExportView> $archive
     * @param list<array{id: int, name: string, size: int, notes: list<string>}> $geoids extracts, handed over from the reference stage
     */
    public function __construct(
        public string $letterhead,
        public array $offers,
        public array $exports,
        public array $archive,
        public array $geoids,
    ) {
    }
}
