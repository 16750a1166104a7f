<?php

declare(strict_types=1);

namespace App\Reference;

/** A named thing of the Reference stage that a project keeps; names are unique within their kind. */
interface Kept
{
    public function id(): int;
}
