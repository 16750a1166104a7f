<?php

declare(strict_types=1);

namespace App\Network\Plan;

use App\Ledger\EditedMeanwhile;
use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Ledger\Operation;
use App\Network\Request\PlanRequest;
use App\Project\Project;

/** Keeps a network that is to be measured. */
final readonly class KeepPlan implements Operation
{
    public const NAME = 'keep-plan';

    /** @param ?string $seen version of the plan that was edited */
    public function __construct(
        private NetworkPlanRepository $plans,
        private LedgerEntryRepository $entries,
        private PlanRequest $request,
        private ?string $seen,
    ) {
    }

    public function name(): string
    {
        return self::NAME;
    }

    public function title(): string
    {
        return \sprintf('Planned a network: %d marks, %d sights', \count($this->request->marks), \count($this->request->sights));
    }

    public function detail(): array
    {
        return (array) $this->request;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $plan = $this->plans->of($project);
        if (null !== $this->seen && (string) $plan->version() !== $this->seen) {
            $entry = $this->entries->lastOf($project, self::NAME);
            throw new EditedMeanwhile('The plan', $entry, ['marks' => $plan->marks, 'sights' => $plan->sights], (string) $plan->version());
        }
        $sent = PlanCheck::plan($project, $this->request);
        $plan->marks = $sent->marks;
        $plan->sights = $sent->sights;
        $plan->settings = $sent->settings;
        $this->plans->keep($plan);
    }
}
