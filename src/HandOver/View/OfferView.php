<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** A kind of file that can be written; format as people name it: "CSV". */
final readonly class OfferView
{
    public function __construct(
        public string $kind,
        public string $title,
        public string $format,
        public string $holds,
        public bool $takesSurfaces,
    ) {
    }
}
