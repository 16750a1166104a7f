<?php

declare(strict_types=1);

namespace App\Reference;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Ledger\Ledger;
use App\Reference\Request\ReferenceRequest;

/** Moves more points than a page would wait for: another system, or a localization. */
final class MoveHandler implements JobHandler
{
    /** Points that are moved while the page waits. */
    public const MOST_AT_ONCE = 20000;

    public function __construct(private readonly ReferenceOperations $operations, private readonly Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return 'move';
    }

    /** @return array<string, mixed> */
    public static function to(ReferenceRequest $request): array
    {
        return ['to' => (array) $request];
    }

    public function run(JobContext $context): void
    {
        $context->report('moving points', 0.1);
        $operation = isset($context->payload['localization'])
            ? $this->operations->apply((int) $context->payload['localization'])
            : $this->operations->change(new ReferenceRequest(...$context->payload['to']));
        $context->outcome(['seq' => $this->ledger->carryOut($context->project, $context->authorName, $operation, $context->jobId)]);
    }
}
