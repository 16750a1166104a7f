<?php

declare(strict_types=1);

namespace App\Network;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Result\Recompute;
use App\Result\Result;

final class AcceptAgain implements Recompute
{
    public function __construct(private readonly NetworkOperations $operations, private readonly Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return AcceptCoordinates::KIND;
    }

    public function again(JobContext $context, Result $newest): void
    {
        $this->ledger->carryOut($context->project, $context->authorName, $this->operations->accept());
    }
}
