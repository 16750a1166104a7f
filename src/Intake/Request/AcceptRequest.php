<?php

declare(strict_types=1);

namespace App\Intake\Request;

final readonly class AcceptRequest
{
    public function __construct(public bool $leaveOutBad = false)
    {
    }
}
