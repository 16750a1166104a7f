<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Terrain\View\HaulView;
use App\Terrain\View\MaterialView;
use App\Terrain\View\SliceView;
use App\Terrain\View\VolumeView;
use Mensura\Earthworks\Haul;
use Mensura\Earthworks\Material;

/** The volumes of a project, with what they mean in each of its materials. */
final class VolumePage
{
    public function __construct(private readonly Results $results, private readonly MaterialListRepository $materials)
    {
    }

    /** @return list<VolumeView> by number */
    public function of(Project $project): array
    {
        $stale = $this->results->stale($project);
        $list = $this->materials->of($project);
        $views = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (str_starts_with($slot, VolumeMaker::PREFIX)) {
                $views[$result->number()] = self::volume($result, $list, $stale[$slot] ?? []);
            }
        }
        ksort($views);

        return array_values($views);
    }

    /** @return list<MaterialView> */
    public function materials(Project $project): array
    {
        return array_map(
            static fn (Material $m): MaterialView => new MaterialView($m->name, $m->isNative, $m->swell, $m->shrink, $m->density),
            $this->materials->of($project)->materials(),
        );
    }

    public function capacity(Project $project): float
    {
        return $this->materials->of($project)->capacity();
    }

    /** @param list<string> $stale */
    private static function volume(Result $r, MaterialList $list, array $stale): VolumeView
    {
        $v = VolumeSettings::fromArray($r->settings);
        $s = $r->summary;
        $slices = static fn (string $key): array => array_map(
            static fn (array $x): SliceView => new SliceView($x['from'], $x['to'], $x['cut'], $x['fill']), $s[$key] ?? [],
        );
        $haul = array_map(static function (Material $m) use ($s, $list): HaulView {
            $h = Haul::of($m, $s['cut'], $s['fill'], $list->capacity());

            return new HaulView($m->name, $m->isNative, $h->looseCut, $h->makes, $h->bankForFill, $h->looseOver, $h->massOver, $h->loads);
        }, $list->materials());

        return new VolumeView(
            $r->number(), $v->name, $s['of'], $s['against'], $v->surface, $v->against, $v->other, $v->elevation, $v->boundary, $v->slice,
            $s['cut'], $s['fill'], $s['net'], $s['areaCut'], $s['areaFill'], $s['planArea'], $s['thickest'] ?? 0.0, $s['deepest'] ?? 0.0,
            array_values($slices('depths')), array_values($slices('elevations')), $haul, isset($s['contours']) ? $r->output : null,
            $s['contours'] ?? null,
            $r->run, $r->at(), $r->authorName, $stale,
        );
    }
}
