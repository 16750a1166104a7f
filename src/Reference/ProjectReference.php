<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Network\Frame;
use Mensura\Network\GridFrame;
use Mensura\Network\PlaneFrame;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\UnreadableGrid;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\Text\SystemReader;
use Mensura\Reference\Text\UnreadableSystem;
use Mensura\Reference\UnknownSystem;
use Mensura\Reference\UnsupportedMethod;

/** What a project's coordinates and heights mean: its system, its geoid, its own grid files, and where it lies. */
final class ProjectReference
{
    /** SQL condition on points: in a projected system, those known only locally have no place on the grid. */
    public const ON_GRID = "(point.known = 'global' OR (SELECT reference FROM project WHERE id = point.project_id) = 'plane')";

    private ?Registry $registry = null;

    /** @var array<string, GridFiles> */
    private array $files = [];

    public function __construct(private readonly Connection $connection, private readonly FileStore $store)
    {
    }

    public function registry(): Registry
    {
        try {
            return $this->registry ??= Registry::open();
        } catch (UnknownSystem $e) {
            throw new UnusableInput('', $e->getMessage());
        }
    }

    /** Grids installed on the machine and those of the project. */
    public function grids(int $project): GridFiles
    {
        $files = [];
        foreach ($this->connection->fetchAllAssociative('SELECT name, sha256 FROM grid_file WHERE project_id = ? ORDER BY id', [$project]) as $row) {
            $files[(string) $row['name']] = $this->store->localPath((string) $row['sha256']);
        }
        $key = $project.json_encode($files);

        return $this->files[$key] ??= GridFiles::installed()->naming($files);
    }

    public function finder(int $project): RouteFinder
    {
        return new RouteFinder($this->registry(), $this->grids($project));
    }

    /** The system named by "EPSG:n", "custom:ID", or defined by a text; null for "plane". */
    public function system(int $project, string $reference): ?HorizontalSystem
    {
        if (Project::PLANE === $reference) {
            return null;
        }
        try {
            if (1 === preg_match('/^custom:(\d+)$/', $reference, $match)) {
                $row = $this->connection->fetchAssociative('SELECT name, definition FROM custom_system WHERE id = ? AND project_id = ?', [(int) $match[1], $project]);
                if (false === $row) {
                    throw new UnusableInput('/reference', 'there is no such system in this project');
                }

                return self::named($this->read((string) $row['definition'])->horizontal, (string) $row['name']);
            }

            return $this->read($reference)->horizontal;
        } catch (UnreadableSystem|UnknownSystem|UnsupportedMethod $e) {
            throw new UnusableInput('/reference', $e->getMessage());
        }
    }

    /**
     * @throws UnreadableSystem
     * @throws UnknownSystem
     * @throws UnsupportedMethod
     */
    public function read(string $text): CoordinateSystem
    {
        return (new SystemReader($this->registry()))->read($text);
    }

    /** A system that a project can be in: projected. */
    public function projected(int $project, string $reference): HorizontalSystem
    {
        $system = $this->system($project, $reference) ?? throw new UnusableInput('/reference', 'a plane local system is not a coordinate reference system');
        if (!$system->isProjected()) {
            throw new UnusableInput('/reference', \sprintf('%s is %s; a project needs eastings and northings, so a projected system', $system->label(), $system->kind));
        }

        return $system;
    }

    public function of(Project $project): ?HorizontalSystem
    {
        return $this->system($project->id(), $project->reference());
    }

    public function geoidOf(Project $project): ?GeoidGrid
    {
        return 'geoid' === $project->heights() ? $this->geoid($project->id(), $project->geoid()) : null;
    }

    /** System and heights in a line, for reports and files. */
    public function words(Project $project): string
    {
        $system = $this->of($project);
        $heights = 'geoid' === $project->heights() ? 'heights above '.$this->geoid($project->id(), $project->geoid())->name : $project->heights().' heights';

        return (null === $system ? 'plane local system' : trim((str_starts_with($project->reference(), 'EPSG:') ? $project->reference().' ' : '').$system->name)).', '.$heights;
    }

    /** @param string $which "installed:NAME" or "grid:ID" */
    public function geoid(int $project, string $which): GeoidGrid
    {
        try {
            if (1 === preg_match('/^installed:([A-Za-z0-9_.-]+)$/', $which, $match)) {
                $path = GridFiles::installed()->find([$match[1]]) ?? throw new UnusableInput('/geoid', \sprintf('the geoid %s is not installed', $match[1]));

                return $this->grids($project)->geoid($path);
            }
            if (1 === preg_match('/^grid:(\d+)$/', $which, $match)) {
                $row = $this->connection->fetchAssociative("SELECT name, sha256, info FROM grid_file WHERE id = ? AND project_id = ? AND kind = 'geoid'", [(int) $match[1], $project]);
                if (false !== $row) {
                    $grid = $this->grids($project)->geoid($this->store->localPath((string) $row['sha256']));
                    $info = json_decode((string) $row['info'], true, 8, \JSON_THROW_ON_ERROR);

                    return new GeoidGrid((string) $row['name'], $grid->south, $grid->west, $grid->dLat, $grid->dLon, $grid->rows, $grid->columns, $grid->values, (string) ($info['ellipsoid'] ?? ''));
                }
            }
        } catch (UnreadableGrid $e) {
            throw new UnusableInput('/geoid', $e->getMessage());
        }
        throw new UnusableInput('/geoid', 'there is no such geoid in this project; import one, or choose an installed one');
    }

    public function frame(Project $project): Frame
    {
        $system = $this->of($project);

        return null === $system ? new PlaneFrame() : new GridFrame(self::inMetres($system), $this->geoidOf($project));
    }

    /** Refuses a geoid whose heights are above another ellipsoid than the system's. */
    public static function fits(GeoidGrid $geoid, HorizontalSystem $system): void
    {
        $name = '' === $geoid->ellipsoid ? 'WGS 84' : $geoid->ellipsoid;
        $own = $system->ellipsoid();
        $global = abs($own->a - Ellipsoid::wgs84()->a) < 0.01 && abs($own->f - Ellipsoid::wgs84()->f) < 1e-9;
        $geoidGlobal = \in_array(str_replace([' ', '_'], '', strtolower($name)), ['wgs84', 'grs80', 'grs1980'], true);
        if ($global !== $geoidGlobal || !$global && 0 !== strcasecmp($name, $own->name)) {
            throw new UnusableInput('/geoid', \sprintf('the geoid %s gives heights above the ellipsoid %s, but %s is on %s; make a geoid extract on that ellipsoid first', $geoid->name, $name, $system->label(), $own->name));
        }
    }

    /** Coordinates are kept in metres whatever the system's own unit is. */
    public static function inMetres(HorizontalSystem $s): HorizontalSystem
    {
        return 1.0 === $s->unit ? $s : new HorizontalSystem($s->kind, $s->code, $s->name, $s->datum, $s->geodetic, $s->dimension, $s->conversion, $s->projection, 1.0, 'metre', $s->axes, $s->area, $s->deprecated, $s->successor, $s->binding, $s->geodeticName);
    }

    public static function spatial(HorizontalSystem $s): HorizontalSystem
    {
        return new HorizontalSystem($s->kind, $s->code, $s->name, $s->datum, $s->geodetic, 3, $s->conversion, $s->projection, $s->unit, $s->unitName, $s->axes, $s->area, $s->deprecated, $s->successor, $s->binding, $s->geodeticName);
    }

    public static function named(HorizontalSystem $s, string $name): HorizontalSystem
    {
        return new HorizontalSystem($s->kind, $s->code, $name, $s->datum, $s->geodetic, $s->dimension, $s->conversion, $s->projection, $s->unit, $s->unitName, $s->axes, $s->area, $s->deprecated, $s->successor, $s->binding, $s->geodeticName);
    }

    /** Where the points known globally lie, degrees from Greenwich; null when there are none. */
    public function extent(Project $project): ?Area
    {
        $system = $this->of($project);
        if (null === $system) {
            return null;
        }
        $box = $this->connection->fetchNumeric("SELECT MIN(e), MIN(n), MAX(e), MAX(n) FROM point WHERE project_id = ? AND known = 'global' AND e IS NOT NULL AND n IS NOT NULL", [$project->id()]);
        if (false === $box || null === $box[0]) {
            return null;
        }
        $lats = $lons = [];
        foreach ([[0, 1], [2, 1], [0, 3], [2, 3]] as [$i, $j]) {
            try {
                [$lat, $lon] = $system->toGeographic((float) $box[$i], (float) $box[$j]);
            } catch (OutsideProjection) {
                return null;
            }
            $lats[] = rad2deg($lat);
            $lons[] = fmod(rad2deg($lon) + 540.0, 360.0) - 180.0;
        }

        return Area::around($lats, $lons);
    }
}
