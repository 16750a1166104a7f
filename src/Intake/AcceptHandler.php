<?php

declare(strict_types=1);

namespace App\Intake;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Ledger\Ledger;

/** Accepts a file too large for a page to wait for. */
final class AcceptHandler implements JobHandler
{
    /** Bytes of a file that is accepted while the page waits: some twenty thousand points. */
    public const MOST_AT_ONCE = 1_000_000;

    public function __construct(private readonly IntakeOperations $operations, private readonly Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return 'accept-file';
    }

    public function run(JobContext $context): void
    {
        $context->report('reading and placing', 0.1);
        $accept = $this->operations->accept((int) $context->payload['file'], true === $context->payload['leaveOutBad']);
        $seq = $this->ledger->carryOut($context->project, $context->authorName, $accept, $context->jobId);
        $context->outcome(['seq' => $seq]);
    }
}
