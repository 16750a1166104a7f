<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Result\Recompute;
use App\Result\Result;

/** Accepts the same baselines again, as they are now. */
final class VectorsAgain implements Recompute
{
    public function __construct(private readonly BaselineOperations $operations, private readonly Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return 'vectors';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $slots = array_map(static fn (string $input): string => substr($input, \strlen(Result::RESULT)), array_keys($newest->inputs));
        $this->ledger->carryOut($context->project, $context->authorName, $this->operations->accept($slots));
    }
}
