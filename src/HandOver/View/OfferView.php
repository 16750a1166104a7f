<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** A kind of file that can be written; format as people name it: "CSV". Takes: how many of the choices at most. */
final readonly class OfferView
{
    /** @param list<array{id: int, name: string}> $choices */
    public function __construct(
        public string $kind,
        public string $group,
        public string $title,
        public string $format,
        public string $holds,
        public int $takes,
        public array $choices,
    ) {
    }
}
