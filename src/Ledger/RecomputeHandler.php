<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Job\JobContext;
use App\Job\JobHandler;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Computes everything stale again, in the order things rest on each other. Taken up again, it goes on with what is still stale. */
final class RecomputeHandler implements JobHandler
{
    /** @var array<string, Recompute> */
    private array $kinds = [];

    /** @param iterable<Recompute> $kinds */
    public function __construct(private readonly Results $results, #[AutowireIterator('app.recompute')] iterable $kinds)
    {
        foreach ($kinds as $kind) {
            $this->kinds[$kind::kind()] = $kind;
        }
    }

    public static function kind(): string
    {
        return 'recompute';
    }

    public function run(JobContext $context): void
    {
        $stale = array_keys($this->results->stale($context->project));
        $done = [];
        foreach ($stale as $i => $slot) {
            $row = $this->results->current($context->project)[$slot] ?? null;
            if (null === $row || !isset($this->kinds[$row['kind']])) {
                continue;
            }
            $context->report($row['label'], $i / \count($stale));
            $this->kinds[$row['kind']]->again($context, $row);
            $done[] = $row['label'];
        }
        $context->outcome(['recomputed' => $done]);
    }
}
