<?php

declare(strict_types=1);

namespace App\Intake\Format;

/** Of a file that says itself what its units and frames are: nothing is asked, and no columns are mapped. */
trait NothingAsked
{
    public function unitsAsked(): array
    {
        return [];
    }

    public function statesControl(): bool
    {
        return false;
    }

    public function asksOrder(): bool
    {
        return false;
    }

    public function isGeographic(): bool
    {
        return false;
    }

    public function heightsSaid(): ?string
    {
        return null;
    }

    public function columns(): array
    {
        return [];
    }

    public function fields(): array
    {
        return [];
    }
}
