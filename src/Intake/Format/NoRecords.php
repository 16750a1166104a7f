<?php

declare(strict_types=1);

namespace App\Intake\Format;

/** Of a file that brings neither points nor observations: a stage reads it where it lies. */
trait NoRecords
{
    use NothingAsked;

    public function points(): array
    {
        return [];
    }

    public function observations(): iterable
    {
        return [];
    }

    public function leftOut(): int
    {
        return 0;
    }

    public function hasHeights(): bool
    {
        return false;
    }
}
