<?php

declare(strict_types=1);

namespace App\HandOver\Kept;

/** What is said of a named thing of the stage, as it is kept. */
interface Definition
{
    /** @return array<string, mixed> */
    public function toArray(): array;
}
