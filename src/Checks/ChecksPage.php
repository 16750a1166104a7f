<?php

declare(strict_types=1);

namespace App\Checks;

use App\Checks\CheckPoint\CheckPointMaker;
use App\Checks\CheckPoint\CheckPointPage;
use App\Checks\View\ChecksView;
use App\Checks\View\DeviationView;
use App\Checks\View\SurfaceChoice;
use App\Design\CloudFiles;
use App\Design\DesignFiles;
use App\Design\PointProducts;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Survey\Point;
use App\Survey\PointRepository;

/** The Checks stage of a project. */
final class ChecksPage
{
    public function __construct(
        private readonly DesignFiles $designs,
        private readonly CloudFiles $clouds,
        private readonly PointRepository $points,
        private readonly Results $results,
        private readonly BandsRepository $bands,
        private readonly PointProducts $made,
    ) {
    }

    public function of(Project $project): ChecksView
    {
        $stale = $this->results->stale($project);
        $deviations = $surfaces = $checks = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (str_starts_with($slot, DeviationMaker::PREFIX)) {
                $bands = $this->bands->of($project, $result->number());
                $deviations[$result->number()] = self::deviation($result, $bands, $stale[$slot] ?? []);
            }
            if (str_starts_with($slot, CheckPointMaker::PREFIX)) {
                $checks[$result->number()] = CheckPointPage::view($result, $stale[$slot] ?? []);
            }
            if (str_starts_with($slot, ComputedSurfaces::PREFIX)) {
                $surfaces[] = new SurfaceChoice($result->number(), $result->label);
            }
        }
        ksort($deviations);

        ksort($checks);

        return new ChecksView(
            array_values($deviations), $this->designs->of($project), $surfaces, $this->points->codes($project),
            $this->clouds->of($project), array_values($checks), $this->points->countOf($project, Point::CHECK),
            $this->made->names($project),
        );
    }

    /** @param list<string> $stale */
    private static function deviation(Result $r, Bands $bands, array $stale): DeviationView
    {
        $s = $r->summary;
        $d = DeviationSettings::fromArray($r->settings);

        return new DeviationView(
            $r->number(), $d->name, $d->measuredOn, (string) $s['against'], $d->reference, $d->along, $d->codes, $d->pattern, $d->surface,
            $d->design, $d->layers, $d->planeCodes, $d->elevation, $d->ignore, $d->unit,
            $d->measured, $d->measuredSurface, $d->measuredCloud, $d->cloud, $d->radius,
            (int) $s['measured'], (int) $s['used'], (int) $s['beyond'],
            (int) $s['outside'], $s['mean'], $s['rms'], $s['sd'], $s['min'], $s['max'], $s['nearestBeyond'], $s['steepest'],
            $s['planeSd'], $r->run, $r->output, $r->at(), $r->authorName, $bands->limits(),
            $bands->colours(), $stale,
        );
    }
}
