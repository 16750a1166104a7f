<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\Project\Project;
use App\Reference\FollowsReference;
use App\Reference\Step;

/** What lies in the middle of a window is said in project coordinates and follows them; a locked view stays where it was drawn. */
final class SheetFollower implements FollowsReference
{
    public function __construct(private readonly SheetRepository $sheets, private readonly SavedViewRepository $views)
    {
    }

    public function moved(Project $project, \Closure $place, Step $step): void
    {
        foreach ($this->sheets->of($project) as $sheet) {
            $d = $sheet->definition()->toArray();
            foreach ($d['windows'] as $k => $w) {
                $isLocked = '' !== ($this->views->in($project, $w['view'])?->definition()->locked ?? '');
                if (!$isLocked && null !== $w['e'] && null !== $w['n']) {
                    [$d['windows'][$k]['e'], $d['windows'][$k]['n']] = $place('a window of sheet '.$sheet->name(), $w['e'], $w['n']);
                }
            }
            $sheet->define($sheet->name(), SheetDefinition::fromArray($d));
        }
    }
}
