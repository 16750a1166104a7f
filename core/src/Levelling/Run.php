<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** A levelled line: setups one after another, each beginning on the point where the one before ended. */
final readonly class Run
{
    /** @param list<Sight> $rows */
    public function __construct(public string $id, public Pattern $pattern, public array $rows)
    {
    }
}
