<?php

declare(strict_types=1);

namespace App\Checks\CheckPoint;

use App\Checks\View\AxisView;
use App\Checks\View\CheckPointsView;
use App\Result\Result;
use Mensura\Deviation\CheckAccuracy;

/** A comparison at check points as it is shown. */
final class CheckPointPage
{
    /** @param list<string> $stale */
    public static function view(Result $r, array $stale): CheckPointsView
    {
        $s = $r->summary;
        $c = CheckPointSettings::fromArray($r->settings);
        $axes = [];
        foreach ($s['axes'] as $axis => $a) {
            $axes[] = new AxisView((string) $axis, $a['count'], $a['mean'], $a['rms'], $a['sd'], $a['min'], $a['max']);
        }

        return new CheckPointsView(
            $r->number(), $c->name, $c->against, (string) $s['against'], $c->pattern, $c->surface, $c->cloud, $c->within, $c->radius,
            $c->made,
            (int) $s['count'], (int) $s['used'], $axes, $s['radial'], $s['horizontal'], $s['vertical'], CheckAccuracy::ENOUGH,
            $r->run, $r->output, $r->at(), $r->authorName, $stale,
        );
    }
}
