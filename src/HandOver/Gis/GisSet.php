<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

use App\Design\DesignFiles;
use App\Project\Project;
use App\Reference\ProjectReference;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\Transformed;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Operation\MissingGrid;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\RouteSettings;
use Mensura\Reference\UnknownSystem;
use Mensura\Reference\UnsupportedMethod;

/** Points, lines and areas of a project as features, those that are known well enough, in the system that is asked for. */
final class GisSet
{
    private const KML = 'EPSG:4326';

    public function __construct(
        private readonly PointFeatures $points, private readonly DesignFiles $designs, private readonly ProjectReference $references,
    ) {
    }

    /**
     * Areas first, then lines, then points.
     *
     * @return array{FeatureSet, array{points: int, kept: int, worse: int, unknown: int, lines: int, areas: int}} and how many stay out
     *
     * @throws UnusableInput
     */
    public function of(Project $project, GisDefinition $d): array
    {
        $set = $this->points->of($project);
        $unit = $this->points->unit($project);
        [$kept, $count] = $this->filtered($set->features, $d);
        [$areas, $lines] = $this->drawn($project, $d, $unit);
        $wanted = array_flip($d->attributes);
        foreach ($kept as $f) {
            $f->properties = array_intersect_key($f->properties, $wanted);
        }
        $set->features = [...$areas, ...$lines, ...$kept];
        $to = 'kml' === $d->format ? self::KML : $d->system;
        if ('' !== $to && $to !== $set->crs) {
            $this->bring($project, $set, $to);
        }

        return [$set, $count + ['lines' => \count($lines), 'areas' => \count($areas)]];
    }

    /**
     * @param list<Feature> $features points
     *
     * @return array{list<Feature>, array{points: int, kept: int, worse: int, unknown: int}}
     */
    private function filtered(array $features, GisDefinition $d): array
    {
        [$roles, $codes] = [array_flip($d->roles), array_flip($d->codes)];
        $kept = [];
        $points = $worse = $unknown = 0;
        foreach ($features as $f) {
            $p = $f->properties;
            if (!isset($roles[(string) $p['role']]) || [] !== $codes && !isset($codes[(string) $p['code']])) {
                continue;
            }
            ++$points;
            $plan = null === $p['sd_e'] || null === $p['sd_n'] ? null : hypot((float) $p['sd_e'], (float) $p['sd_n']);
            $up = null === $p['sd_h'] ? null : (float) $p['sd_h'];
            if (null !== $d->plan && null !== $plan && $plan > $d->plan || null !== $d->up && null !== $up && $up > $d->up) {
                ++$worse;
            } elseif (!$d->unknown && (null !== $d->plan && null === $plan || null !== $d->up && null === $up)) {
                ++$unknown;
            } else {
                $kept[] = $f;
            }
        }

        return [$kept, ['points' => $points, 'kept' => \count($kept), 'worse' => $worse, 'unknown' => $unknown]];
    }

    /** @return array{list<Feature>, list<Feature>} areas and lines */
    private function drawn(Project $project, GisDefinition $d, float $unit): array
    {
        $areas = $lines = [];
        foreach ($d->layers as $l) {
            $file = $this->designs->named($project, $l['file']);
            foreach ($this->designs->lines($project, $l['file'], [$l['layer']], 1.0) as $line) {
                $places = array_map(static fn (array $v): array => [$v[0] / $unit, $v[1] / $unit, $v[2]], $line->vertices);
                $properties = array_intersect_key(
                    ['name' => $line->name, 'code' => $l['layer'], 'file' => $file], array_flip($d->attributes),
                );
                $last = \count($places) - 1;
                if ($last > 2 && \array_slice($places[0], 0, 2) === \array_slice($places[$last], 0, 2)) {
                    $areas[] = new Feature(Feature::POLYGON, 'areas', [[$places]], $properties);
                } else {
                    $lines[] = new Feature(Feature::LINE, 'lines', [[$places]], $properties);
                }
            }
        }

        return [$areas, $lines];
    }

    private function bring(Project $project, FeatureSet $set, string $to): void
    {
        $from = $this->references->of($project)
            ?? throw new UnusableInput('/system', 'the project is in a plane local system; give it a system first');
        try {
            $target = $this->references->read($to);
            $source = new CoordinateSystem($from);
            $route = $this->references->finder($project->id())->route($source, $target, new RouteSettings());
            Transformed::bring($set, $source, $target, $route, $project->name());
        } catch (MissingGrid|NoWay|UnknownSystem|UnsupportedMethod $e) {
            throw new UnusableInput('/system', $e->getMessage());
        }
    }
}
