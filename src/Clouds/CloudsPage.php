<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Clouds\View\CloudFitView;
use App\Clouds\View\CloudsView;
use App\Clouds\View\CloudView;
use App\Design\CloudFiles;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;

/** The clouds of a project. */
final class CloudsPage
{
    public function __construct(
        private readonly MadeClouds $made, private readonly CloudFiles $files, private readonly Results $results,
        private readonly KnownPoints $known, private readonly MadePoints $points,
    ) {
    }

    public function of(Project $project): CloudsView
    {
        $stale = $this->results->stale($project);
        $view = static fn (Result $r): CloudView => self::view($r, $stale[$r->slot] ?? []);

        return new CloudsView(
            array_values(array_map($view, $this->made->of($project))), $this->files->of($project),
            array_values($this->known->of($project)), $this->points->names($project),
        );
    }

    /** @param ?array{onto: string, overlap: float, rms: float, shift: array{float, float, float}, turn: float} $f */
    private static function fit(?array $f): ?CloudFitView
    {
        return null === $f ? null : new CloudFitView($f['onto'], $f['overlap'], $f['rms'], $f['shift'], $f['turn']);
    }

    /** @param list<string> $stale */
    private static function view(Result $r, array $stale): CloudView
    {
        $d = CloudSettings::fromArray($r->settings);
        $s = $r->summary;

        return new CloudView(
            $r->number(), $d->name, (string) $s['of'], $d->words(), $d->files, $d->clouds, $d->passes, $d->dense, $d->crop,
            $d->outside,
            $d->thin, $d->noise, $d->ground, $d->classes, $d->onto, $d->within, self::fit($s['fit'] ?? null), $d->targets,
            $s['targets'] ?? null, $d->paint, $d->against, $d->range, $s['paint'] ?? null, (int) $s['points'],
            array_map(intval(...), (array) $s['classes']),
            array_values(array_map(floatval(...), (array) $s['extent'])),
            (float) $s['density'], isset($s['spacing']) ? (float) $s['spacing'] : null, (bool) $s['hasColours'],
            (bool) $s['hasIntensities'], (int) $s['bytes'], $r->output, $r->run, $r->at(), $r->authorName, $stale,
        );
    }
}
