<?php

declare(strict_types=1);

namespace App\Baselines\Base;

use App\Baselines\MarkPlace;
use App\Baselines\Slots;
use App\Baselines\View\BaseFileView;
use App\Baselines\View\BasePlaceView;
use App\Baselines\View\BaseView;
use App\Project\Project;
use App\Result\Results;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Psr\Clock\ClockInterface;

/** What a base correction can start from: files of points with the base among them, and places from processed sessions. */
final class BasePage
{
    /** Names and codes that say a point is the base it was measured from. */
    private const BASE = '/^(base|ref|reference)/i';

    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly PointRepository $points,
        private readonly Results $results,
        private readonly MarkPlace $places,
        private readonly ClockInterface $clock,
    ) {
    }

    public function of(Project $project): BaseView
    {
        $bases = [];
        foreach ($this->points->rows($project) as $p) {
            if (null !== $p->fileId && Point::SURVEYED === $p->role && 1 === preg_match(
                self::BASE, '' === $p->code ? $p->name : $p->code,
            )) {
                $bases[$p->fileId][] = $p->name;
            }
        }
        $files = [];
        foreach ($this->files->of($project) as $f) {
            if (!$f->isWaiting() && FileKind::Points->value === $f->kind()) {
                $files[] = new BaseFileView(
                    $f->id(), $f->name(), $f->records(), $bases[$f->id()] ?? [], (string) ($f->meaning()[CorrectBase::KEPT] ?? ''),
                );
            }
        }
        $sessions = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (!str_starts_with($slot, Slots::STATIC) || 'code' === $result->summary['solution']) {
                continue;
            }
            $place = $result->summary['place'];
            $grid = $this->places->inProject($project, [(float) $place[0], (float) $place[1], (float) $place[2]]);
            if (null !== $grid) {
                $label = \sprintf('%s from %s, %s', $result->summary['toName'], $result->summary['fromName'], $result->summary['solution']);
                $sessions[] = new BasePlaceView($label, ...$grid);
            }
        }
        $now = $this->clock->now();

        return new BaseView(
            $files, $sessions, round((int) $now->format('Y') + (int) $now->format('z') / 365.25, 2), $project->hasGeoidHeights(),
        );
    }
}
