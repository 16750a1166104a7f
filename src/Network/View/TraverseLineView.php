<?php

declare(strict_types=1);

namespace App\Network\View;

/** Marks in order along a traverse: backsight, stations from first to last, foresight. */
final readonly class TraverseLineView
{
    /** @param list<string> $stations */
    public function __construct(public ?string $back, public array $stations, public ?string $fore)
    {
    }
}
