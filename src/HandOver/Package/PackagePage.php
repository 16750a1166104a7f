<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\Design\DesignFiles;
use App\Export\AlignmentSource;
use App\Export\DrawingSource;
use App\Export\Exporter;
use App\HandOver\View\PackagesView;
use App\HandOver\View\PackageView;
use App\HandOver\WrittenFiles;
use App\Project\Project;
use App\Reference\GridFile;
use App\Reference\GridFileRepository;
use App\Reference\Localizations;
use App\Survey\PointRepository;
use Mensura\Exchange\Package\LayerColour;

/** The packages of a project, and what can be chosen for one. */
final class PackagePage
{
    public function __construct(
        private readonly PackageRepository $packages, private readonly WrittenFiles $written, private readonly DrawingSource $source,
        private readonly DesignFiles $designs, private readonly AlignmentSource $alignments, private readonly PointRepository $points,
        private readonly Localizations $localizations, private readonly GridFileRepository $grids,
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
        $surfaces = self::listed($this->source->surfaces($project));
        $layers = [];
        foreach ($this->designs->drawings($project) as $drawing) {
            foreach ($drawing->lineLayers as $layer => $lines) {
                $layers[] = ['file' => $drawing->id, 'fileName' => $drawing->name, 'layer' => (string) $layer, 'lines' => $lines];
            }
        }
        $geoids = [];
        foreach ($this->grids->of($project) as $grid) {
            if ($grid->isGeoid() && GridFile::EXTRACT === $grid->origin) {
                $geoids[$grid->id()] = $grid->name;
            }
        }
        $roles = [];
        foreach ($this->points->roles($project) as $role => $points) {
            $roles[] = ['role' => $role, 'points' => $points];
        }
        $colours = [];
        foreach (LayerColour::ALL as $name => [$css]) {
            $colours[] = ['name' => $name, 'css' => $css];
        }

        return new PackagesView(
            $packages, $surfaces, $roles, array_map(strval(...), array_keys($this->points->codes($project))), $layers,
            $this->alignments->listed($project),
            self::listed(array_column($this->localizations->listed($project), 'name', 'id')), self::listed($geoids), $colours,
        );
    }

    /**
     * @param array<int, string> $names
     *
     * @return list<array{id: int, name: string}>
     */
    private static function listed(array $names): array
    {
        return array_map(static fn (int $id, string $name): array => ['id' => $id, 'name' => $name], array_keys($names), $names);
    }
}
