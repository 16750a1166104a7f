<?php

declare(strict_types=1);

namespace App\Intake\View;

/** The remembered mapping a file is read by. */
final readonly class MemoryView
{
    public function __construct(public int $id, public string $label, public string $author)
    {
    }
}
