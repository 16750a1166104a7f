<?php

declare(strict_types=1);

namespace App\Ledger;

/** What the ledger says of taking entries back. */
final readonly class Reversal
{
    /** @param array<string, mixed> $detail */
    public function __construct(public string $name, private string $title, private array $detail = [])
    {
    }

    public function title(): string
    {
        return $this->title;
    }

    /** @return array<string, mixed> */
    public function detail(): array
    {
        return $this->detail;
    }
}
