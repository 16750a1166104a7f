<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

/** One of the formats that geographic information systems open. */
final readonly class GisFormat
{
    /**
     * @param string $ending    of the file that is written
     * @param string $extension of the file that is handed over
     * @param string $system    the format is always in; empty for the project's own
     * @param string $remark    after what the file holds
     */
    public function __construct(
        public string $name, public string $ending, public string $extension, public string $type, public int $place,
        public string $system = '', public string $remark = '',
    ) {
    }
}
