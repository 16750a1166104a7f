<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Reference\Request\ExtractRequest;
use App\Reference\View\ExtractView;
use Mensura\Fault\UnusableInput;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Grid\GeoidExtract;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\Isg;
use Mensura\Reference\Grid\UnreadableGrid;
use Mensura\Reference\Operation\RouteSettings;

/** Plans geoid extracts for the field: area, step, ellipsoid and name. */
final class ExtractPlanner
{
    public function __construct(private readonly ProjectReference $references)
    {
    }

    public function plan(Project $project, ExtractRequest $r): PlannedExtract
    {
        $source = $this->references->geoid($project->id(), $r->geoid);
        $system = $this->references->of($project);
        $local = 'local' === $r->ellipsoid;
        if ($local && null === $system) {
            throw new UnusableInput('/ellipsoid', 'a plane project has no ellipsoid of its own');
        }
        try {
            [$area, $where] = self::area($r);
            $plan = GeoidExtract::plan($source, $area, $r->step);
        } catch (UnreadableGrid $e) {
            throw new UnusableInput('/geoid', $e->getMessage());
        } catch (UnusableInput $e) {
            throw $e;
        } catch (\DomainException $e) {
            throw new UnusableInput('/south', $e->getMessage());
        }
        $route = null;
        $ellipsoid = '' === $source->ellipsoid ? 'WGS 84' : $source->ellipsoid;
        if ($local && null !== $system) {
            $ellipsoid = $system->ellipsoid()->name;
            $datum = $system->geodetic ?? throw new UnusableInput('/ellipsoid', 'the project\'s system names no datum of the registry');
            $geodetic = $this->references->registry()->horizontalSystem($datum);
            try {
                $route = $this->references->finder($project->id())->route(
                    new CoordinateSystem(ProjectReference::spatial($geodetic)), $this->references->registry()->system('EPSG:4979'),
                    new RouteSettings(area: $area),
                );
            } catch (\DomainException $e) {
                throw new UnusableInput('/ellipsoid', $e->getMessage());
            }
        }
        $label = trim(preg_replace('/[^\p{L}\p{N}._-]+/u', '-', $r->label) ?? '', '-');
        $stem = pathinfo($source->name, \PATHINFO_FILENAME);
        $name = \sprintf('%s_%s%s_%s.gtx', $stem, '' === $label ? '' : $label.'_', $where, str_replace(' ', '', $ellipsoid));

        return new PlannedExtract($plan, $name, $ellipsoid, $route, $source);
    }

    /** @param ?array{count: int, largest: float, mean: float, rms: float} $check */
    public function view(Project $project, PlannedExtract $planned, ?int $id, ?array $check): ExtractView
    {
        $plan = $planned->plan;
        $bounds = [
            $plan->south, $plan->west, $plan->south + ($plan->rows - 1) * $plan->dLat,
            $plan->west + ($plan->columns - 1) * $plan->dLon,
        ];

        return new ExtractView(
            $planned->name, $bounds, $plan->dLat, $plan->dLon, $plan->rows, $plan->columns, Gtx::size($plan->rows, $plan->columns),
            Isg::size($plan->rows, $plan->columns), $plan->sameStep, $planned->ellipsoid, $id,
            $check['count'] ?? null, $check['largest'] ?? null,
            $check['rms'] ?? null, $planned->warning(), $this->outline($project, $plan),
        );
    }

    /** @return array{Area, string} the area, and how a file name says it */
    private static function area(ExtractRequest $r): array
    {
        if ('radius' === $r->by) {
            if (null === $r->lat || null === $r->lon || null === $r->radiusKm) {
                throw new UnusableInput('/lat', 'give the centre and a radius');
            }
            $area = GeoidExtract::around($r->lat, $r->lon, $r->radiusKm, Ellipsoid::wgs84());

            return [$area, \sprintf('%s%gkm', self::corner($r->lat, $r->lon), $r->radiusKm)];
        }
        if (null === $r->south || null === $r->west || null === $r->north || null === $r->east) {
            throw new UnusableInput('/south', 'give two corners');
        }

        return [
            new Area($r->south, $r->west, $r->north, $r->east),
            self::corner($r->south, $r->west).'-'.self::corner($r->north, $r->east),
        ];
    }

    /** @return list<list<float>> */
    private function outline(Project $project, GeoidExtract $plan): array
    {
        $system = $this->references->of($project);
        if (null === $system) {
            return [];
        }
        $height = ($plan->rows - 1) * $plan->dLat;
        $width = ($plan->columns - 1) * $plan->dLon;
        $outline = [];
        foreach ([[0, 0, 1, 0], [1, 0, 0, 1], [1, 1, -1, 0], [0, 1, 0, -1]] as [$x, $y, $dx, $dy]) {
            for ($i = 0; $i < 6; ++$i) {
                try {
                    $lat = $plan->south + $height * ($y + $dy * $i / 6.0);
                    $lon = $plan->west + $width * ($x + $dx * $i / 6.0);
                    $outline[] = $system->fromGeographic(deg2rad($lat), deg2rad($lon));
                } catch (\DomainException) {
                    return [];
                }
            }
        }

        return [...$outline, $outline[0]];
    }

    private static function corner(float $lat, float $lon): string
    {
        return \sprintf('%s%.2f%s%.2f', $lat < 0.0 ? 'S' : 'N', abs($lat), $lon < 0.0 ? 'W' : 'E', abs($lon));
    }
}
