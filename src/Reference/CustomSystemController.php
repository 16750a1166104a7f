<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Ledger;
use App\Project\Project;
use App\Project\ProjectAccess;
use App\Reference\Request\CustomSystemRequest;
use App\Reference\Request\DesignRequest;
use App\Reference\Request\GroundRequest;
use App\Reference\View\DesignView;
use App\Reference\View\TriedView;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\Axis;
use Mensura\Reference\Crs\Conversion;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Ground\GridPoint;
use Mensura\Reference\Ground\LowDistortion;
use Mensura\Reference\Ground\ScaledSystem;
use Mensura\Reference\Method\Methods;
use Mensura\Reference\Text\WktWriter;
use Mensura\Reference\UnsupportedMethod;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

/** Systems of the project's own: typed, imported, designed for a site, scaled to the ground. Kept as WKT2. */
#[Route('/api/projects/{id<\d+>}/reference')]
final class CustomSystemController
{
    public function __construct(
        private readonly ProjectAccess $access,
        private readonly Connection $connection,
        private readonly ProjectReference $references,
        private readonly Ledger $ledger,
    ) {
    }

    /** Reads a definition and places a known point with it; problems are said, not thrown, so that a form can show them while it is typed. */
    #[Route('/custom/try', methods: 'POST')]
    public function try(int $id, #[MapRequestPayload] CustomSystemRequest $request): JsonResponse
    {
        $this->access->read($id);
        try {
            $system = $this->defined($request);
        } catch (\DomainException $e) {
            return new JsonResponse(new TriedView($request->name, '', '', '', null, null, null, null, null, null, $e instanceof UnusableInput ? $e->reason : $e->getMessage()));
        }
        $e = $n = $backLat = $backLon = $convergence = $scale = null;
        $problem = '';
        if (null !== $request->lat && null !== $request->lon) {
            try {
                [$e, $n] = $system->fromGeographic(deg2rad($request->lat), deg2rad($request->lon));
                [$lat, $lon] = $system->toGeographic($e, $n);
                [$backLat, $backLon] = [rad2deg($lat), rad2deg($lon)];
                $point = GridPoint::at($system, $e, $n, 0.0);
                [$convergence, $scale] = [$point->convergence, $point->scale];
            } catch (\DomainException $x) {
                $problem = $x->getMessage();
            }
        }

        return new JsonResponse(new TriedView($system->name, $system->datum->name, rtrim(WktWriter::write(new CoordinateSystem($system))), SystemDescription::proj($system), $e, $n, $backLat, $backLon, $convergence, $scale, $problem));
    }

    #[Route('/custom', methods: 'POST')]
    public function keep(int $id, #[MapRequestPayload] CustomSystemRequest $request): JsonResponse
    {
        $project = $this->access->change($id);
        try {
            $system = $this->defined($request);
        } catch (UnusableInput $e) {
            throw $e;
        } catch (\DomainException $e) {
            throw new UnusableInput('/definition', $e->getMessage());
        }

        return new JsonResponse(['id' => $this->store($project, $request->name, $system, 'Made the system '.$request->name)], 201);
    }

    /** An own system to share, as WKT2 or, where PROJ knows its projection, as a PROJ string. */
    #[Route('/custom/{system<\d+>}.{format<wkt|proj>}', methods: 'GET')]
    public function download(int $id, int $system, string $format): Response
    {
        $this->access->read($id);
        $own = $this->references->projected($id, 'custom:'.$system);
        $text = 'wkt' === $format ? WktWriter::write(new CoordinateSystem($own)) : SystemDescription::proj($own)."\n";
        if ("\n" === $text) {
            throw new UnusableInput('', 'a PROJ string has no word for this projection; take the WKT2');
        }

        return new Response($text, 200, ['Content-Type' => 'text/plain; charset=utf-8', 'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, preg_replace('/[^A-Za-z0-9._-]+/', '_', $own->name).'.'.$format)]);
    }

    #[Route('/design', methods: 'POST')]
    public function design(int $id, #[MapRequestPayload] DesignRequest $request): JsonResponse
    {
        $project = '' === $request->name ? $this->access->read($id) : $this->access->change($id);
        $current = $this->references->of($project);
        try {
            $area = null !== $request->south && null !== $request->west && null !== $request->north && null !== $request->east
                ? new Area($request->south, $request->west, $request->north, $request->east)
                : $this->references->extent($project) ?? throw new UnusableInput('/south', 'the project has no points known globally; give the corners of the site');
        } catch (UnusableInput $e) {
            throw $e;
        } catch (\DomainException $e) {
            throw new UnusableInput('/south', $e->getMessage());
        }
        // A plane project states no datum: then the design is on the one its request names, and the answer says which.
        $base = $current ?? $this->references->registry()->horizontalSystem($request->geodetic);
        [$geodetic, $geodeticName] = null === $current ? [$base->code, $base->name] : [$current->geodetic, $current->geodeticName];
        try {
            $d = LowDistortion::propose('' === $request->name ? 'low distortion' : $request->name, $base->datum, $geodetic, $geodeticName, $area, $request->height);
        } catch (\DomainException $e) {
            throw new UnusableInput('/height', $e->getMessage());
        }
        $samples = $own = [];
        for ($i = 0; $i <= 8; ++$i) {
            for ($j = 0; $j <= 8; ++$j) {
                $lat = $area->south + ($area->north - $area->south) * $i / 8.0;
                $lon = $area->west + $area->width() * $j / 8.0;
                if (null !== $current) {
                    [$e, $n] = $current->fromGeographic(deg2rad($lat), deg2rad($lon));
                    $samples[] = ['e' => $e, 'n' => $n, 'ppm' => LowDistortion::ppm($d['system'], $lat, $lon, $request->height)];
                    $own[] = LowDistortion::ppm($current, $lat, $lon, $request->height);
                }
            }
        }
        $values = $d['system']->conversion->values ?? [];
        $kept = '' === $request->name ? null : $this->store($project, $request->name, $d['system'], \sprintf('Designed the low-distortion system %s: %s, scale %.6f, %.1f to %.1f ppm', $request->name, $d['method'], $d['scale'], $d['ppm']['min'], $d['ppm']['max']));

        return new JsonResponse(new DesignView(
            $base->datum->name, $d['method'], $d['scale'], rad2deg($values[8801] ?? 0.0), rad2deg($values[8802] ?? 0.0), $d['ppm']['min'], $d['ppm']['max'], $d['ppm']['mean'], $d['other']['method'], $d['other']['min'], $d['other']['max'],
            [] === $own ? null : min($own), [] === $own ? null : max($own), rtrim(WktWriter::write(new CoordinateSystem($d['system']))), $samples, $kept,
        ), null === $kept ? 200 : 201);
    }

    /** The project's system scaled to the ground about one of its points. */
    #[Route('/ground', methods: 'POST')]
    public function ground(int $id, #[MapRequestPayload] GroundRequest $request): JsonResponse
    {
        $project = $this->access->change($id);
        $system = $this->references->of($project) ?? throw new UnusableInput('', 'a plane project lies on the ground already');
        $p = $this->connection->fetchAssociative("SELECT e, n, h FROM point WHERE project_id = ? AND name = ? AND known = 'global' AND e IS NOT NULL AND n IS NOT NULL AND h IS NOT NULL", [$id, $request->point]);
        if (false === $p) {
            throw new UnusableInput('/point', \sprintf('there is no point %s with coordinates and a height', $request->point));
        }
        [$lat, $lon] = $system->toGeographic((float) $p['e'], (float) $p['n']);
        $undulation = $this->references->geoidOf($project)?->height(rad2deg($lat), rad2deg($lon)) ?? 0.0;
        $factor = 1.0 / GridPoint::at($system, (float) $p['e'], (float) $p['n'], (float) $p['h'] + $undulation)->combined();
        try {
            $scaled = ScaledSystem::about($system, $request->name, (float) $p['e'], (float) $p['n'], $factor);
        } catch (UnsupportedMethod $e) {
            throw new UnusableInput('', $e->getMessage());
        }
        $kept = $this->store($project, $request->name, $scaled, \sprintf('Scaled %s to the ground about %s: factor %.9f', $system->name, $request->point, $factor));

        return new JsonResponse(['id' => $kept, 'factor' => $factor], 201);
    }

    private function store(Project $project, string $name, HorizontalSystem $system, string $title): int
    {
        $text = WktWriter::write(new CoordinateSystem(ProjectReference::named($system, $name)));
        $keep = new KeepRow($this->connection, 'custom-system', 'custom_system', $title, ['name' => $name, 'definition' => $text], ['wkt' => $text]);
        $this->ledger->carryOut($project, $this->access->user()->name(), $keep);

        return $keep->id();
    }

    private function defined(CustomSystemRequest $r): HorizontalSystem
    {
        if ('' !== trim($r->definition)) {
            $read = $this->references->read($r->definition);
            if (null !== $read->vertical) {
                throw new UnusableInput('/definition', 'this is a compound system; heights are stated by the project\'s geoid, so give its horizontal part alone');
            }
            if (!$read->horizontal->isProjected()) {
                throw new UnusableInput('/definition', \sprintf('this system is %s; a project needs eastings and northings', $read->horizontal->kind));
            }

            return $read->horizontal;
        }
        [$method, $known] = Methods::METHODS[$r->method] ?? throw new UnusableInput('/method', 'choose a projection method');
        $base = $this->references->registry()->horizontalSystem($r->geodetic);
        if (HorizontalSystem::GEOGRAPHIC !== $base->kind) {
            throw new UnusableInput('/geodetic', $base->label().' is not a geographic system');
        }
        $values = [];
        foreach ($known as $code) {
            $value = $r->parameters[(string) $code] ?? null;
            if (null === $value) {
                throw new UnusableInput('/parameters/'.$code, \sprintf('%s is missing', Methods::PARAMETERS[$code]));
            }
            if (!is_numeric($value)) {
                throw new UnusableInput('/parameters/'.$code, \sprintf('%s is not a number', Methods::PARAMETERS[$code]));
            }
            $values[$code] = \in_array($code, [...Methods::LENGTHS, ...Methods::SCALES], true) ? (float) $value : deg2rad((float) $value);
        }
        $conversion = new Conversion($r->method, $values, $method);

        return new HorizontalSystem(HorizontalSystem::PROJECTED, null, $r->name, $base->datum, $base->code, 2, $conversion, Methods::projection($conversion, $base->ellipsoid()), axes: [new Axis('E', 'east'), new Axis('N', 'north')], geodeticName: $base->name);
    }
}
