<?php

declare(strict_types=1);

namespace App\Course;

use App\Account\User;
use App\Course\View\Overview;
use App\Course\View\StaleView;
use App\Job\JobList;
use App\Ledger\Ledger;
use App\Ledger\LedgerEntryRepository;
use App\Project\MeaningOfCoordinates;
use App\Project\Project;
use App\Project\ProjectVoter;
use App\Project\View\UnitsView;
use App\Result\Results;

/** All that the frame shows of a project. */
final class OverviewMaker
{
    public function __construct(
        private readonly Results $results,
        private readonly Course $course,
        private readonly JobList $jobs,
        private readonly Ledger $ledger,
        private readonly LedgerEntryRepository $entries,
        private readonly ProjectVoter $voter,
        private readonly MeaningOfCoordinates $meaning,
    ) {
    }

    public function of(Project $project, User $member): Overview
    {
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $role = $this->voter->roleOf($member, $project);
        $units = $project->units();
        $staleViews = [];
        foreach ($stale as $slot => $reasons) {
            $staleViews[] = new StaleView($slot, $current[$slot]->label, $reasons);
        }

        return new Overview(
            $project->id(), $project->name(), $role->value ?? '', $role?->mayChange() ?? false, $project->reference(),
            $this->meaning->systemName($project), $project->heights(), $this->meaning->geoidName($project), $project->revision(),
            new UnitsView(
                (string) $units['length'], (string) $units['angle'], (int) $units['decimals'], (int) ($units['heights'] ?? 3),
                (int) ($units['angles'] ?? 1), (int) ($units['small'] ?? 1), (int) ($units['areas'] ?? 1),
            ),
            $this->course->states($project, $current, $stale), $staleViews, $this->jobs->recent($project),
            $this->ledger->lastUndoable($project), $this->ledger->lastRedoable($project), $this->entries->lastSeq($project),
        );
    }
}
