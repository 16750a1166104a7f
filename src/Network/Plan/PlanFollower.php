<?php

declare(strict_types=1);

namespace App\Network\Plan;

use App\Project\Project;
use App\Reference\FollowsReference;
use App\Reference\Step;
use App\Survey\FollowsRename;

/** Planned marks lie in project coordinates, and sights know marks by name; both follow. */
final readonly class PlanFollower implements FollowsReference, FollowsRename
{
    public function __construct(private NetworkPlanRepository $plans)
    {
    }

    public function moved(Project $project, \Closure $place, Step $step): void
    {
        $plan = $this->plans->of($project);
        foreach ($plan->marks as $i => $mark) {
            [$plan->marks[$i]['e'], $plan->marks[$i]['n']] = $place('the planned mark '.$mark['name'], $mark['e'], $mark['n']);
        }
    }

    public function renamed(Project $project, string $from, string $to): void
    {
        $plan = $this->plans->of($project);
        $sights = [];
        foreach ($plan->sights as $sight) {
            $sight['from'] = $sight['from'] === $from ? $to : $sight['from'];
            $sight['to'] = $sight['to'] === $from ? $to : $sight['to'];
            if ($sight['from'] !== $sight['to']) {
                $sights[] = $sight;
            }
        }
        $plan->sights = $sights;
    }
}
