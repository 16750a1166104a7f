<?php

declare(strict_types=1);

namespace App\Reference;

use App\Api\Problem;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Project\ProjectAccess;
use App\Reference\Request\ExtractRequest;
use App\Reference\View\ExtractView;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Grid\GeoidExtract;
use Mensura\Reference\Grid\GeoidFile;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\Isg;
use Mensura\Reference\Grid\Ntv2Grid;
use Mensura\Reference\Grid\OutsideGrid;
use Mensura\Reference\Grid\UnreadableGrid;
use Mensura\Reference\Operation\Route as CoordinateRoute;
use Mensura\Reference\Operation\RouteSettings;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Geoids and shift grids: import, a value at a point, extracts for the field. */
#[Route('/api/projects/{id<\d+>}/reference')]
final class HeightsController
{
    public function __construct(
        private readonly ProjectAccess $access,
        private readonly Connection $connection,
        private readonly ProjectReference $references,
        private readonly FileStore $store,
        private readonly Ledger $ledger,
    ) {
    }

    /** A geoid (GTX, ISG, GeoTIFF) or an NTv2 grid. */
    #[Route('/grids', methods: 'POST')]
    public function import(int $id, Request $request): JsonResponse
    {
        $project = $this->access->change($id);
        $upload = $request->files->get('file');
        if (!$upload instanceof UploadedFile || !$upload->isValid()) {
            return Problem::response(400, 'No file arrived.', 'Send one file in the field "file"; files up to 64 MB can be read.', [['pointer' => '/file', 'detail' => 'is missing']]);
        }
        $bytes = (string) file_get_contents($upload->getPathname());
        $name = mb_substr(preg_replace('/[^\p{L}\p{N}._ -]/u', '_', mb_scrub($upload->getClientOriginalName())) ?? 'grid', -200);
        $ellipsoid = mb_substr(trim((string) $request->request->get('ellipsoid', '')), 0, 60);
        try {
            if (str_starts_with($bytes, 'NUM_OREC')) {
                new Ntv2Grid($name, $bytes);
                $kind = 'shift';
                $info = ['notes' => ['used wherever a transformation asks for a grid of this name']];
                $what = 'shift grid';
            } else {
                $grid = GeoidFile::read($name, $bytes);
                $kind = 'geoid';
                $info = self::info($grid, '' === $ellipsoid ? ('' === $grid->ellipsoid ? 'WGS 84' : $grid->ellipsoid) : $ellipsoid);
                $what = \sprintf('geoid, %d by %d nodes', $grid->rows, $grid->columns);
            }
        } catch (UnreadableGrid $e) {
            throw new UnusableInput('/file', $e->getMessage());
        }
        $keep = new KeepRow($this->connection, 'import-grid', 'grid_file', \sprintf('Imported %s: %s', $name, $what), ['name' => $name, 'kind' => $kind, 'origin' => 'imported', 'sha256' => $this->store->put($bytes), 'size' => \strlen($bytes), 'info' => json_encode($info, \JSON_THROW_ON_ERROR)], ['file' => $name, 'sha256' => hash('sha256', $bytes)]);
        $seq = $this->ledger->carryOut($project, $this->access->user()->name(), $keep);

        return new JsonResponse(['seq' => $seq, 'id' => $keep->id()], 201);
    }

    /** Geoid height at a place, with what it was read from. */
    #[Route('/undulation', methods: 'GET')]
    public function undulation(int $id, Request $request): JsonResponse
    {
        $project = $this->access->read($id);
        $lat = $request->query->get('lat');
        $lon = $request->query->get('lon');
        if (!is_numeric($lat) || !is_numeric($lon) || abs((float) $lat) > 90.0 || abs((float) $lon) > 360.0) {
            throw new UnusableInput('/lat', 'give latitude (-90 to 90) and longitude in degrees');
        }
        $which = (string) ($request->query->get('geoid') ?: $project->geoid());
        $geoid = $this->references->geoid($id, $which);
        try {
            return new JsonResponse(['n' => $geoid->height((float) $lat, (float) $lon), 'geoid' => $geoid->name]);
        } catch (OutsideGrid $e) {
            throw new UnusableInput('/lat', $e->getMessage());
        }
    }

    #[Route('/extract/plan', methods: 'POST')]
    public function plan(int $id, #[MapRequestPayload] ExtractRequest $request): JsonResponse
    {
        $project = $this->access->read($id);
        [$plan, $name, $ellipsoid, $route] = $this->planned($project, $request);

        return new JsonResponse(self::view($plan, $name, $ellipsoid, self::carries($plan, $route), $this->outline($project, $plan), null, null));
    }

    #[Route('/extract', methods: 'POST')]
    public function make(int $id, #[MapRequestPayload] ExtractRequest $request): JsonResponse
    {
        $project = $this->access->change($id);
        [$plan, $name, $ellipsoid, $route, $source] = $this->planned($project, $request);
        try {
            $grid = $plan->make($name, $ellipsoid, $route);
            $bytes = Gtx::write($grid);
            // The file handed over is the file checked: read back, and compared with the source at random places.
            $check = GeoidExtract::verify(Gtx::read($name, $bytes), $source, $route);
        } catch (\DomainException $e) {
            throw new UnusableInput('/geoid', $e->getMessage());
        }
        $note = \sprintf('checked at %d random places against %s: largest difference %.4f m, rms %.4f m', $check['count'], $source->name, $check['largest'], $check['rms']);
        $warning = self::carries($plan, $route);
        $keep = new KeepRow($this->connection, 'geoid-extract', 'grid_file', \sprintf('Made the geoid extract %s; %s', $name, $note), ['name' => $name, 'kind' => 'geoid', 'origin' => 'extract', 'sha256' => $this->store->put($bytes), 'size' => \strlen($bytes), 'info' => json_encode(self::info($grid, $ellipsoid) + ['notes' => array_values(array_filter([$note, $warning]))], \JSON_THROW_ON_ERROR)], ['source' => $source->name, 'check' => $check]);
        $this->ledger->carryOut($project, $this->access->user()->name(), $keep);

        return new JsonResponse(self::view($plan, $name, $ellipsoid, $warning, $this->outline($project, $plan), $keep->id(), $check), 201);
    }

    #[Route('/grids/{grid<\d+>}.{format<gtx|isg>}', methods: 'GET')]
    public function download(int $id, int $grid, string $format): Response
    {
        $this->access->read($id);
        $row = $this->connection->fetchAssociative("SELECT name, sha256, info FROM grid_file WHERE id = ? AND project_id = ? AND kind = 'geoid'", [$grid, $id]);
        if (false === $row) {
            throw new NotFoundHttpException('There is no such geoid in this project.');
        }
        $geoid = $this->references->geoid($id, 'grid:'.$grid);
        $file = pathinfo((string) $row['name'], \PATHINFO_FILENAME).'.'.$format;

        return new Response('gtx' === $format ? Gtx::write($geoid) : Isg::write($geoid), 200, [
            'Content-Type' => 'gtx' === $format ? 'application/octet-stream' : 'text/plain; charset=utf-8',
            'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $file, preg_replace('/[^A-Za-z0-9._-]/', '_', $file) ?? 'geoid'),
        ]);
    }

    /** @return array{GeoidExtract, string, string, ?CoordinateRoute, GeoidGrid} plan, name, ellipsoid, way to the source's datum, source */
    private function planned(Project $project, ExtractRequest $r): array
    {
        $source = $this->references->geoid($project->id(), $r->geoid);
        $system = $this->references->of($project);
        $local = 'local' === $r->ellipsoid;
        if ($local && null === $system) {
            throw new UnusableInput('/ellipsoid', 'a plane project has no ellipsoid of its own');
        }
        try {
            if ('radius' === $r->by) {
                if (null === $r->lat || null === $r->lon || null === $r->radiusKm) {
                    throw new UnusableInput('/lat', 'give the centre and a radius');
                }
                $area = GeoidExtract::around($r->lat, $r->lon, $r->radiusKm, Ellipsoid::wgs84());
                $where = \sprintf('%s%gkm', self::corner($r->lat, $r->lon), $r->radiusKm);
            } else {
                if (null === $r->south || null === $r->west || null === $r->north || null === $r->east) {
                    throw new UnusableInput('/south', 'give two corners');
                }
                $area = new Area($r->south, $r->west, $r->north, $r->east);
                $where = self::corner($r->south, $r->west).'-'.self::corner($r->north, $r->east);
            }
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
            $geodetic = $this->references->registry()->horizontalSystem($system->geodetic ?? throw new UnusableInput('/ellipsoid', 'the project\'s system names no datum of the registry'));
            try {
                $route = $this->references->finder($project->id())->route(new CoordinateSystem(ProjectReference::spatial($geodetic)), $this->references->registry()->system('EPSG:4979'), new RouteSettings(area: $area));
            } catch (\DomainException $e) {
                throw new UnusableInput('/ellipsoid', $e->getMessage());
            }
        }
        $label = trim(preg_replace('/[^\p{L}\p{N}._-]+/u', '-', $r->label) ?? '', '-');

        return [$plan, \sprintf('%s_%s%s_%s.gtx', pathinfo($source->name, \PATHINFO_FILENAME), '' === $label ? '' : $label.'_', $where, str_replace(' ', '', $ellipsoid)), $ellipsoid, $route, $source];
    }

    /** @return array{bounds: list<float>, step: float, ellipsoid: string} */
    private static function info(GeoidGrid $grid, string $ellipsoid): array
    {
        return ['bounds' => $grid->area()->bounds(), 'step' => $grid->dLat, 'ellipsoid' => $ellipsoid];
    }

    /**
     * @param list<list<float>>                                              $outline
     * @param ?array{count: int, largest: float, mean: float, rms: float} $check
     */
    private static function view(GeoidExtract $plan, string $name, string $ellipsoid, string $note, array $outline, ?int $id, ?array $check): ExtractView
    {
        return new ExtractView(
            $name, [$plan->south, $plan->west, $plan->south + ($plan->rows - 1) * $plan->dLat, $plan->west + ($plan->columns - 1) * $plan->dLon], $plan->dLat, $plan->dLon, $plan->rows, $plan->columns,
            Gtx::size($plan->rows, $plan->columns), Isg::size($plan->rows, $plan->columns), $plan->sameStep, $ellipsoid, $id, $check['count'] ?? null, $check['largest'] ?? null, $check['rms'] ?? null, $note, $outline,
        );
    }

    /** A transformation by a grid of latitude and longitude shifts leaves heights as they are; so then does the extract. */
    private static function carries(GeoidExtract $plan, ?CoordinateRoute $route): string
    {
        $lat = deg2rad($plan->south + ($plan->rows - 1) * $plan->dLat / 2.0);
        $lon = deg2rad($plan->west + ($plan->columns - 1) * $plan->dLon / 2.0);

        return null === $route || abs($route->apply($lat, $lon, 0.0)[2]) > 1e-6 ? '' : 'the transformation to this ellipsoid carries no heights, so N is the same as on the global one';
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
                    $outline[] = $system->fromGeographic(deg2rad($plan->south + $height * ($y + $dy * $i / 6.0)), deg2rad($plan->west + $width * ($x + $dx * $i / 6.0)));
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
