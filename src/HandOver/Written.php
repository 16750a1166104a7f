<?php

declare(strict_types=1);

namespace App\HandOver;

final readonly class Written
{
    /** @param list<string> $leftOut what the file does not hold, in words */
    public function __construct(public string $label, public string $fileName, public string $bytes, public array $leftOut)
    {
    }
}
