<?php

declare(strict_types=1);

namespace App\Api;

/** A fault that knows how to say itself to whoever asked. */
interface Refusal extends \Throwable
{
    public function status(): int;

    public function title(): string;

    /** @return array<string, mixed> members added to the problem details */
    public function more(): array;
}
