<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Job\JobContext;
use App\Job\JobHandler;

/** Takes back entries that changed too many rows for a page to wait for. */
final class ReversalHandler implements JobHandler
{
    /** Rows that are put back while the page waits. */
    public const MOST_AT_ONCE = 20000;

    public function __construct(private readonly Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return 'reversal';
    }

    public function run(JobContext $context): void
    {
        $seq = (int) $context->payload['seq'];
        $context->report('putting rows back', 0.1);
        $done = true === $context->payload['all']
            ? $this->ledger->backTo($context->project, $context->authorName, $seq, null, $context->jobId)
            : $this->ledger->undo($context->project, $context->authorName, $seq, null, $context->jobId);
        $context->outcome(['seq' => $done]);
    }
}
