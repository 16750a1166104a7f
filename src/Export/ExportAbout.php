<?php

declare(strict_types=1);

namespace App\Export;

/** What is said of a kind of export. */
final readonly class ExportAbout
{
    /**
     * @param string $label         "Coordinates as CSV"
     * @param string $doing         of the job that writes it: "Write the coordinates"
     * @param string $what          in the file's name: "coordinates"
     * @param string $title         on the page: "Coordinates"
     * @param string $holds         what is in it, after the name of its format: "every point with code, role and source"
     * @param int    $place         among the kinds on the page, ascending
     * @param int    $takes         how many things are chosen for it at most
     * @param string $format        as people call it; empty where it is called by its ending
     */
    public function __construct(
        public string $label,
        public string $doing,
        public string $what,
        public string $extension,
        public string $mediaType,
        public string $title,
        public string $holds,
        public int $place,
        public int $takes = 0,
        public string $format = '',
    ) {
    }

    /** What people look for it under. */
    public function group(): string
    {
        return match (true) {
            $this->place < 10 => 'Packages',
            $this->place < 20 => 'Coordinates, for tables and information systems',
            $this->place < 30 => 'Drawings and designs',
            default => 'Reports and sections',
        };
    }
}
