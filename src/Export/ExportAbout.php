<?php

declare(strict_types=1);

namespace App\Export;

/** What is said of a kind of export. */
final readonly class ExportAbout
{
    /**
     * @param string $label     "Coordinates as CSV"
     * @param string $doing     of the job that writes it: "Write the coordinates"
     * @param string $what      in the file's name: "coordinates"
     */
    public function __construct(
        public string $label,
        public string $doing,
        public string $what,
        public string $extension,
        public string $mediaType,
    ) {
    }
}
