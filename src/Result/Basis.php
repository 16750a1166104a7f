<?php

declare(strict_types=1);

namespace App\Result;

/** What a computation rests on, at the versions it read. */
final readonly class Basis
{
    /** @param array<string, string> $inputs as {@see Result::$inputs} */
    public function __construct(public array $inputs)
    {
    }
}
