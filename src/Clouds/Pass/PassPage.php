<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Clouds\KnownPoints;
use App\Clouds\View\PassesView;
use App\Clouds\View\PassView;
use App\Design\CloudFiles;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;

/** The passes of a project. */
final class PassPage
{
    public function __construct(
        private readonly Results $results, private readonly MadePasses $made, private readonly DriveFiles $drives,
        private readonly CloudFiles $clouds, private readonly KnownPoints $known,
    ) {
    }

    public function of(Project $project): PassesView
    {
        $stale = $this->results->stale($project);
        $views = [];
        foreach ($this->made->of($project) as $number => $result) {
            $views[] = self::view($number, $result, $stale[$result->slot] ?? []);
        }

        return new PassesView(
            $views, $this->drives->trajectories($project), $this->clouds->of($project), array_values($this->known->of($project)),
        );
    }

    /** @param list<string> $stale */
    private static function view(int $number, Result $r, array $stale): PassView
    {
        $p = PassSettings::fromArray($r->settings);
        $s = $r->summary;

        return new PassView(
            $number, $p->name, (string) $s['of'], (string) $s['onto'], $p->trajectory, $p->cloud, $p->referenceTrajectory,
            $p->referenceCloud, $p->referencePass, $p->every, $p->isTime, $p->radius, $p->preShift,
            (string) $s['status'], $s['reason'] ?? null,
            (int) $s['stations'], (int) $s['used'], (float) $s['length'], $s['rmsBefore'] ?? null, $s['rmsAfter'] ?? null,
            (float) $s['greatest'], $p->targets, $s['control'] ?? null, $s['check'] ?? null, $s['without'] ?? null, $r->run,
            $r->output, $r->at(), $r->authorName, $stale,
        );
    }
}
