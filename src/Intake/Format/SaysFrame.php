<?php

declare(strict_types=1);

namespace App\Intake\Format;

/** A kind of file that says itself which coordinate system it is in. */
interface SaysFrame
{
    /** "EPSG:n"; null where the file does not say. */
    public function frame(string $path): ?string;
}
