<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\Export\AlignmentSource;
use App\Export\Exporter;
use App\HandOver\Choices;
use App\HandOver\View\PackagesView;
use App\HandOver\View\PackageView;
use App\HandOver\WrittenFiles;
use App\Project\Project;
use App\Reference\GridFile;
use App\Reference\GridFileRepository;
use App\Reference\Localizations;

/** The packages of a project, and what can be chosen for one. */
final class PackagePage
{
    public function __construct(
        private readonly PackageRepository $packages, private readonly WrittenFiles $written, private readonly Choices $choices,
        private readonly AlignmentSource $alignments, private readonly Localizations $localizations,
        private readonly GridFileRepository $grids,
    ) {
    }

    public function of(Project $project): PackagesView
    {
        $packages = [];
        foreach ($this->packages->of($project) as $p) {
            $d = $p->definition();
            $packages[] = new PackageView(
                $p->id(), $p->version(), $p->name(), $d->surfaces, $d->roles, $d->codes, $d->layers, $d->alignments, $d->localization,
                $d->geoid, $this->written->of($project, Exporter::PREFIX.PackageExport::KEY.':'.$p->id()),
            );
        }
        $geoids = [];
        foreach ($this->grids->of($project) as $grid) {
            if ($grid->isGeoid() && GridFile::EXTRACT === $grid->origin) {
                $geoids[$grid->id()] = $grid->name;
            }
        }
        $c = $this->choices;

        return new PackagesView(
            $packages, $c->surfaces($project), $c->roles($project), $c->codes($project), $c->layers($project),
            $this->alignments->listed($project), Choices::listed(array_column($this->localizations->listed($project), 'name', 'id')),
            Choices::listed($geoids), Choices::colours(),
        );
    }
}
