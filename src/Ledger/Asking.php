<?php

declare(strict_types=1);

namespace App\Ledger;

/** Who asks for a change, as part of which job, under which name of their own. */
final readonly class Asking
{
    public function __construct(public string $authorName, public ?string $jobId, public ?string $key)
    {
    }
}
