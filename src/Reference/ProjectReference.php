<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\MeaningOfCoordinates;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Network\Deflection;
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
final class ProjectReference implements MeaningOfCoordinates
{
    private ?Registry $registry = null;

    /** @var array<string, GridFiles> */
    private array $files = [];

    public function __construct(
        private readonly CustomSystemRepository $systems,
        private readonly GridFileRepository $gridFiles,
        private readonly PointRepository $points,
        private readonly FileStore $store,
    ) {
    }

    public function systemName(Project $project): string
    {
        return $this->of($project)->name ?? 'plane local system';
    }

    public function geoidName(Project $project): string
    {
        return $this->geoidOf($project)->name ?? '';
    }

    public function beginsIn(string $reference): string
    {
        return $this->projected(0, $reference)->code
            ?? throw new UnusableInput('/reference', 'a new project begins in a system of the registry');
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
        foreach ($this->gridFiles->of($project) as $file) {
            $files[$file->name] = $this->store->localPath($file->sha256);
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
            if (1 === preg_match('/^custom:([0-9]{1,15})$/', $reference, $match)) {
                $own = $this->systems->in($project, (int) $match[1])
                    ?? throw new UnusableInput('/reference', 'there is no such system in this project');

                return self::named($this->read($own->definition)->horizontal, $own->name);
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
        $system = $this->system($project, $reference);
        if (null === $system) {
            throw new UnusableInput('/reference', 'a plane local system is not a coordinate reference system');
        }
        if (!$system->isProjected()) {
            $words = '%s is %s; a project needs eastings and northings, so a projected system';
            throw new UnusableInput('/reference', \sprintf($words, $system->label(), $system->kind));
        }

        return $system;
    }

    public function of(Project $project): ?HorizontalSystem
    {
        return $this->system($project->id(), $project->reference());
    }

    public function geoidOf(Project $project): ?GeoidGrid
    {
        return $project->hasGeoidHeights() ? $this->geoid($project->id(), $project->geoid()) : null;
    }

    /** System and heights in a line, for reports and files. */
    public function words(Project $project): string
    {
        $system = $this->of($project);
        $heights = $project->hasGeoidHeights() ? 'heights above '.$this->geoidName($project) : $project->heights().' heights';
        $code = str_starts_with($project->reference(), 'EPSG:') ? $project->reference().' ' : '';

        return (null === $system ? 'plane local system' : trim($code.$system->name)).', '.$heights;
    }

    /** @param string $which "installed:NAME" or "grid:ID" */
    public function geoid(int $project, string $which): GeoidGrid
    {
        try {
            if (1 === preg_match('/^installed:([A-Za-z0-9_.-]+)$/', $which, $match)) {
                $path = GridFiles::installed()->find([$match[1]]);
                if (null === $path) {
                    throw new UnusableInput('/geoid', \sprintf('the geoid %s is not installed', $match[1]));
                }

                return $this->grids($project)->geoid($path);
            }
            if (1 === preg_match('/^grid:([0-9]{1,15})$/', $which, $match)) {
                $file = $this->gridFiles->in($project, (int) $match[1]);
                if (null !== $file && $file->isGeoid()) {
                    return $this->grids($project)->geoid($this->store->localPath($file->sha256))->named($file->name, $file->ellipsoid());
                }
            }
        } catch (UnreadableGrid $e) {
            throw new UnusableInput('/geoid', $e->getMessage());
        }
        throw new UnusableInput('/geoid', 'there is no such geoid in this project; import one, or choose an installed one');
    }

    public function frame(Project $project, ?Deflection $deflection = null): Frame
    {
        $system = $this->of($project);

        return null === $system ? new PlaneFrame() : new GridFrame(self::inMetres($system), $this->geoidOf($project), $deflection);
    }

    /** Refuses a geoid whose heights are above another ellipsoid than the system's. */
    public static function fits(GeoidGrid $geoid, HorizontalSystem $system): void
    {
        $name = '' === $geoid->ellipsoid ? 'WGS 84' : $geoid->ellipsoid;
        $own = $system->ellipsoid();
        $global = abs($own->a - Ellipsoid::wgs84()->a) < 0.01 && abs($own->f - Ellipsoid::wgs84()->f) < 1e-9;
        $geoidGlobal = \in_array(str_replace([' ', '_'], '', strtolower($name)), ['wgs84', 'grs80', 'grs1980'], true);
        if ($global !== $geoidGlobal || !$global && 0 !== strcasecmp($name, $own->name)) {
            $words = 'the geoid %s gives heights above the ellipsoid %s, but %s is on %s; make a geoid extract on that ellipsoid first';
            throw new UnusableInput('/geoid', \sprintf($words, $geoid->name, $name, $system->label(), $own->name));
        }
    }

    /** Coordinates are kept in metres whatever the system's own unit is. */
    public static function inMetres(HorizontalSystem $s): HorizontalSystem
    {
        return 1.0 === $s->unit ? $s : $s->with(unit: 1.0, unitName: 'metre');
    }

    public static function spatial(HorizontalSystem $s): HorizontalSystem
    {
        return $s->with(dimension: 3);
    }

    public static function named(HorizontalSystem $s, string $name): HorizontalSystem
    {
        return $s->with(name: $name);
    }

    /** Where the points known globally lie, degrees from Greenwich; null when there are none. */
    public function extent(Project $project): ?Area
    {
        $system = $this->of($project);
        if (null === $system) {
            return null;
        }
        $box = $this->points->box($project);
        if (null === $box) {
            return null;
        }
        $lats = $lons = [];
        foreach ([[0, 1], [2, 1], [0, 3], [2, 3]] as [$i, $j]) {
            try {
                [$lat, $lon] = $system->toGeographic($box[$i], $box[$j]);
            } catch (OutsideProjection) {
                return null;
            }
            $lats[] = rad2deg($lat);
            $lons[] = fmod(rad2deg($lon) + 540.0, 360.0) - 180.0;
        }

        return Area::around($lats, $lons);
    }
}
