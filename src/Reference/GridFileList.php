<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Reference\View\GridFileView;
use Doctrine\DBAL\Connection;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\UnreadableGrid;

/** The geoids and shift grids a project can use: installed on the machine, imported, and extracts. */
final class GridFileList
{
    private const INSTALLED = ['egm96_15.gtx', 'egm08_25.gtx'];

    public function __construct(private readonly Connection $connection, private readonly ProjectReference $references)
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
            $list[] = new GridFileView('installed:'.basename($path), null, basename($path), 'geoid', 'installed', (int) filesize($path), $grid->area()->bounds(), $grid->dLat, 'WGS 84', null === $extent || $grid->area()->covers($extent), []);
        }
        foreach ($this->connection->fetchAllAssociative('SELECT * FROM grid_file WHERE project_id = ? ORDER BY id', [$project->id()]) as $row) {
            $info = json_decode((string) $row['info'], true, 8, \JSON_THROW_ON_ERROR);
            $bounds = $info['bounds'] ?? null;
            $list[] = new GridFileView(
                'grid:'.$row['id'], (int) $row['id'], (string) $row['name'], (string) $row['kind'], (string) $row['origin'], (int) $row['size'], $bounds, $info['step'] ?? null, (string) ($info['ellipsoid'] ?? ''),
                null === $extent || null === $bounds || (new Area(...$bounds))->covers($extent), $info['notes'] ?? [],
            );
        }

        return $list;
    }
}
