<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

use App\Export\PointPrecision;
use App\Export\ProjectPoints;
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

/** The project's points as features, with what is known of each: code, role, standard deviations, the file it came from. */
final class PointFeatures
{
    private const LAYER = 'points';
    private const ADJUSTED = 'network adjustment';

    public function __construct(
        private readonly ProjectPoints $points, private readonly ProjectReference $references, private readonly PointPrecision $precision,
    ) {
    }

    /**
     * In the project's system and its unit, or in another.
     *
     * @param string $to "EPSG:n"; empty for the project's own
     *
     * @throws UnusableInput
     */
    public function of(Project $project, string $to = ''): FeatureSet
    {
        $set = new FeatureSet();
        $set->unit = 'metre';
        $system = $this->references->of($project);
        // Coordinates are kept in metres whatever the system's own unit is.
        $unit = $system->unit ?? 1.0;
        $known = $this->precision->of($project);
        foreach ($this->points->of($project) as $p) {
            // Of control what was given; of what was adjusted what came out.
            [$sdE, $sdN, $sdH] = [$p->sdE, $p->sdN, $p->sdH];
            if (null === $sdE && null === $sdN && null === $sdH) {
                [$sdE, $sdN, $sdH] = $known[$p->name] ?? [null, null, null];
            }
            $properties = ['name' => $p->name, 'code' => $p->code, 'role' => $p->role, 'height' => $p->h];
            $m = $p->measured();
            if (null === $sdE && null === $sdN) {
                // The root of both squares is known of it: each as large as the other.
                $sdE = $sdN = null === $m->sdPlan ? null : $m->sdPlan / \M_SQRT2;
            }
            $properties += ['sd_e' => $sdE, 'sd_n' => $sdN, 'sd_h' => $sdH ?? $m->sdUp, 'source' => $p->source, 'file' => $p->file];
            $properties += ['time' => $m->at, 'method' => $p->isAdjusted() ? self::ADJUSTED : $m->method, 'satellites' => $m->satellites];
            $place = [(float) $p->e / $unit, (float) $p->n / $unit, $p->h];
            $set->features[] = new Feature(Feature::POINT, self::LAYER, [[[$place]]], $properties);
        }
        if (null === $system) {
            return '' === $to ? $set : throw new UnusableInput('', 'the project is in a plane local system; give it a system first');
        }
        $from = new CoordinateSystem($system);
        Transformed::say($set, $from);
        if ('' !== $to && $set->crs !== $to) {
            try {
                $target = $this->references->read($to);
                $route = $this->references->finder($project->id())->route($from, $target, new RouteSettings());
                Transformed::bring($set, $from, $target, $route, $project->name());
            } catch (MissingGrid|NoWay $e) {
                throw new UnusableInput('', $e->getMessage());
            }
        }

        return $set;
    }

    /** Metres of the unit its coordinates are handed over in. */
    public function unit(Project $project): float
    {
        return $this->references->of($project)->unit ?? 1.0;
    }

    /** @return list<string> */
    public function leftOut(Project $project): array
    {
        return $this->points->leftOut($project);
    }
}
