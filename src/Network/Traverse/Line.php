<?php

declare(strict_types=1);

namespace App\Network\Traverse;

/** Marks in order along a traverse: backsight, stations from first to last, foresight. */
final readonly class Line
{
    /** @param list<string> $stations */
    public function __construct(public ?string $back, public array $stations, public ?string $fore)
    {
    }

    /** @return list<string> */
    public function names(): array
    {
        return [...(null === $this->back ? [] : [$this->back]), ...$this->stations, ...(null === $this->fore ? [] : [$this->fore])];
    }
}
