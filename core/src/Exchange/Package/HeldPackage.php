<?php

declare(strict_types=1);

namespace Mensura\Exchange\Package;

/** A package that was read back, and what its manifest says of it, held against that. */
final readonly class HeldPackage
{
    /** @param list<HeldItem> $items */
    public function __construct(public Package $package, public array $items)
    {
    }

    public function holds(): bool
    {
        return [] === array_filter($this->items, static fn (HeldItem $i): bool => '' !== $i->why);
    }
}
