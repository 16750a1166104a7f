<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Reference\View\GridFileView;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\UnreadableGrid;

/** The geoids and shift grids a project can use: installed on the machine, imported, and extracts. */
final class GridFileList
{
    private const INSTALLED = ['egm96_15.gtx', 'egm08_25.gtx'];

    public function __construct(private readonly GridFileRepository $kept, private readonly ProjectReference $references)
    {
    }

    /** @return list<GridFileView> */
    public function of(Project $project, ?Area $extent): array
    {
        $list = [];
        $files = $this->references->grids($project->id());
        foreach (self::INSTALLED as $name) {
            $path = GridFiles::installed()->find([$name]);
            if (null === $path) {
                continue;
            }
            try {
                $grid = $files->geoid($path);
            } catch (UnreadableGrid) {
                continue;
            }
            $area = $grid->area();
            $covers = null === $extent || $area->covers($extent);
            $file = basename($path);
            $list[] = new GridFileView(
                'installed:'.$file, null, $file, GridFile::GEOID, 'installed', (int) filesize($path), $area->bounds(),
                $grid->dLat, 'WGS 84', $covers, [],
            );
        }
        foreach ($this->kept->of($project) as $file) {
            $bounds = $file->info['bounds'] ?? null;
            $covers = null === $extent || null === $bounds || (new Area(...$bounds))->covers($extent);
            $list[] = new GridFileView(
                'grid:'.$file->id(), $file->id(), $file->name, $file->kind, $file->origin, $file->size, $bounds,
                $file->info['step'] ?? null,
                $file->ellipsoid(), $covers, $file->info['notes'] ?? [],
            );
        }

        return $list;
    }
}
