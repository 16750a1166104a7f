<?php

declare(strict_types=1);

namespace App\Network;

use App\Project\Project;
use App\Reference\ProjectReference;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\Point;
use App\Survey\PointRepository;

/** Places of marks: control as it was given, all others by the newest adjustment, else by their own coordinates. */
final readonly class MarkPlaces
{
    public function __construct(
        private PointRepository $points,
        private ProjectReference $references,
        private Results $results,
        private FileStore $store,
    ) {
    }

    public function of(Project $project): Places
    {
        $places = $control = [];
        foreach ($this->points->rows($project) as $p) {
            if (!$p->isPlaced() || Point::LOCALLY === $p->known && !$project->isPlane()) {
                continue;
            }
            $places[$p->name] = [(float) ($p->givenE ?? $p->e), (float) ($p->givenN ?? $p->n), $p->givenH ?? $p->h];
            if ($p->isControl()) {
                $control[$p->name] = [
                    str_contains($p->held, 'e') ? null : $p->sdE, str_contains($p->held, 'n') ? null : $p->sdN,
                    str_contains($p->held, 'h') ? null : $p->sdH,
                ];
            }
        }
        $newest = $this->results->current($project)[Adjuster::SLOT] ?? null;
        foreach (null === $newest ? [] : StoredAdjustment::of($this->store, $newest)->stations as $name => $s) {
            if (!isset($control[$name])) {
                $places[(string) $name] = [(float) $s['e'], (float) $s['n'], $s['h']];
            }
        }

        return new Places($places, $control, $this->references->frame(
            $project, NetworkSettings::deflection(NetworkSettings::of($project)),
        ));
    }
}
