<?php

declare(strict_types=1);

namespace App\HandOver\Request;

/** Whether a view stays as it is now, whatever the project becomes. */
final readonly class LockRequest
{
    public function __construct(public bool $locked)
    {
    }
}
