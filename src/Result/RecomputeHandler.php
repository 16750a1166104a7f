<?php

declare(strict_types=1);

namespace App\Result;

use App\Job\JobCancelled;
use App\Job\JobContext;
use App\Job\JobHandler;
use App\Job\PartlyDone;
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
            $newest = $this->results->current($context->project)[$slot] ?? null;
            if (null === $newest || !isset($this->kinds[$newest->kind])) {
                continue;
            }
            $context->report($newest->label, $i / \count($stale));
            try {
                $this->kinds[$newest->kind]->again($context, $newest);
            } catch (JobCancelled $e) {
                throw $e;
            } catch (\Throwable $e) {
                throw [] === $done ? $e : new PartlyDone($done, $newest->label, $e);
            }
            $done[] = $newest->label;
        }
        $context->outcome(['recomputed' => $done]);
    }
}
