<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\Design\DesignFiles;
use App\Export\AlignmentSource;
use App\Export\DrawingSource;
use App\Export\ProjectPoints;
use App\Project\Project;
use App\Reference\GridFileRepository;
use App\Reference\LocalizationRepository;
use App\Reference\Localizations;
use App\Reference\ProjectReference;
use App\Result\Result;
use App\Result\Results;
use App\Review\Checked;
use App\Survey\AcceptedCoordinates;
use Mensura\Exchange\Package\Package;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Text\WktWriter;
use Mensura\Reference\UnsupportedMethod;

/** Takes what is chosen for a package out of the project, each part with the version it is of. */
final class PackageParts
{
    /** Of all surfaces together: what a controller shows and one process holds. */
    private const MOST_TRIANGLES = 600_000;

    public function __construct(
        private readonly ProjectPoints $points, private readonly DrawingSource $source, private readonly DesignFiles $designs,
        private readonly AlignmentSource $alignments, private readonly ProjectReference $references,
        private readonly Localizations $localizations, private readonly LocalizationRepository $keptLocalizations,
        private readonly GridFileRepository $grids, private readonly Results $results,
        private readonly Checked $checked,
    ) {
    }

    /**
     * @param string $made when, as ISO 8601 says it
     *
     * @throws UnusableInput
     */
    public function of(Project $project, KeptPackage $kept, string $made): Package
    {
        $package = new Package($kept->name(), $project->name(), $made);
        $d = $kept->definition();
        $this->system($project, $package);
        $this->points($project, $d, $package);
        $this->surfaces($project, $d, $package);
        $this->lines($project, $d, $package);
        foreach ($d->alignments as $a) {
            $package->alignments[] = $this->alignments->alignment($project, $a['file'], $a['name']);
            $package->from['alignment '.$a['name']] = $this->designs->named($project, $a['file']);
        }
        $this->site($project, $d, $package);

        return $package;
    }

    private function system(Project $project, Package $package): void
    {
        $package->heights = $project->hasGeoidHeights() ? 'above '.$this->references->geoidName($project) : $project->heights();
        $system = $this->references->of($project);
        if (null === $system) {
            $package->leftOut[] = 'the coordinate system: the project is in a plane local one, which no WKT describes';

            return;
        }
        // Coordinates are handed over in metres whatever the system's own unit is.
        $metric = ProjectReference::inMetres($system);
        $package->systemName = $system->name;
        $package->systemCode = 1.0 === $system->unit ? $system->code : null;
        try {
            $package->system = WktWriter::write(new CoordinateSystem(1.0 === $system->unit ? $system : $metric->with(isOwn: true)))."\n";
        } catch (UnsupportedMethod $e) {
            throw new UnusableInput('', \sprintf('%s cannot be written as WKT 2: %s', $system->name, $e->getMessage()));
        }
        $package->from['system'] = $project->reference();
    }

    private function points(Project $project, PackageDefinition $d, Package $package): void
    {
        if ([] === $d->roles) {
            return;
        }
        $roles = array_flip($d->roles);
        $codes = array_flip($d->codes);
        $flat = 0;
        foreach ($this->points->of($project) as $p) {
            if (isset($roles[$p->role]) && ([] === $codes || isset($codes[$p->code]))) {
                $place = ['e' => (float) $p->e, 'n' => (float) $p->n, 'h' => $p->h];
                $package->points[] = ['name' => $p->name, ...$place, 'code' => $p->code];
                $flat += (int) (null === $p->h);
            }
        }
        if ($flat > 0) {
            $package->leftOut[] = \sprintf('heights of %d points that have none', $flat);
        }
        if ([] === $package->points) {
            $package->leftOut[] = 'points: none has these roles and codes';
        }
        $adjusted = $this->results->current($project)[AcceptedCoordinates::SLOT] ?? null;
        $package->from['points'] = null === $adjusted ? 'as surveyed' : $this->version($project, $adjusted);
    }

    private function surfaces(Project $project, PackageDefinition $d, Package $package): void
    {
        $current = $this->results->current($project);
        $count = 0;
        foreach ($d->surfaces as $id) {
            foreach ($this->source->triangles($project, [$id]) as $s) {
                $count += intdiv(\count($s->triangles), 3);
                if ($count > self::MOST_TRIANGLES) {
                    $words = 'these surfaces have more than %d triangles together; leave one out, or thin it';
                    throw new UnusableInput('/surfaces', \sprintf($words, self::MOST_TRIANGLES));
                }
                $from = isset($current['surface:'.$id]) ? $this->version($project, $current['surface:'.$id]) : '';
                $package->surfaces[] = [
                    'name' => $s->surface, 'from' => $from, 'x' => $s->x, 'y' => $s->y, 'z' => $s->z, 'triangles' => $s->triangles,
                ];
            }
        }
    }

    private function lines(Project $project, PackageDefinition $d, Package $package): void
    {
        foreach ($d->layers as $l) {
            $file = $this->designs->named($project, $l['file']);
            foreach ($this->designs->lines($project, $l['file'], [$l['layer']], 1.0) as $line) {
                $vertices = array_map(static fn (array $v): array => [$v[0], $v[1], $v[2] ?? 0.0], $line->vertices);
                if (PackageDefinition::BACKGROUND === $l['colour']) {
                    $package->background[] = ['layer' => $l['layer'], 'vertices' => $vertices];
                    $package->from['background'] = $file;
                } else {
                    $package->lines[] = ['layer' => $l['layer'], 'vertices' => $vertices];
                    $package->layers[$l['layer']] = $l['colour'];
                    $package->from['layer '.$l['layer']] = $file;
                }
            }
        }
    }

    private function site(Project $project, PackageDefinition $d, Package $package): void
    {
        if (0 !== $d->localization) {
            $read = $this->localizations->read($project, $d->localization);
            if (!$read->leadsTo($project)) {
                $words = 'localization %s leads to %s, %s; the project is in %s: choose another, or fit it anew';
                throw new UnusableInput('/localization', \sprintf(
                    $words, $read->name, $read->system, $read->heights, $this->references->words($project),
                ));
            }
            $package->localization = $this->keptLocalizations->in($project, $d->localization)->file ?? '';
            $package->localizationName = $read->name;
            $package->from['localization'] = 'localization '.$read->name;
        }
        if (0 !== $d->geoid) {
            $grid = $this->grids->in($project, $d->geoid);
            if (null === $grid || !$grid->isGeoid()) {
                throw new UnusableInput('/geoid', 'the project has no such geoid extract; make one on the Heights page of Reference');
            }
            $package->geoid = Gtx::write($this->references->geoid($project->id(), 'grid:'.$d->geoid));
            $package->geoidName = $grid->name;
            $package->from['geoid'] = $grid->name;
        }
    }

    private function version(Project $project, Result $result): string
    {
        $checked = $this->checked->words($project, $result->slot);

        return \sprintf('%s, run %d', $result->label, $result->run).('' === $checked ? '' : ", $checked");
    }
}
