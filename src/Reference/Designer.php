<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Reference\Request\DesignRequest;
use App\Reference\View\DesignView;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Ground\LowDistortion;
use Mensura\Reference\Text\WktWriter;

/** Designs a low-distortion system for the site of a project. */
final class Designer
{
    /** Places along each side at which the distortion is shown. */
    private const SAMPLES = 8;
    /** EPSG parameters: latitude and longitude of natural origin. */
    private const ORIGIN = [8801, 8802];

    public function __construct(private readonly ProjectReference $references)
    {
    }

    /** @throws UnusableInput */
    public function design(Project $project, DesignRequest $request): Design
    {
        $current = $this->references->of($project);
        $area = $this->area($project, $request);
        // A plane project states no datum: then the design is on the one its request names, and the answer says which.
        $base = $current ?? $this->references->registry()->horizontalSystem($request->geodetic);
        [$geodetic, $geodeticName] = null === $current ? [$base->code, $base->name] : [$current->geodetic, $current->geodeticName];
        $name = '' === $request->name ? 'low distortion' : $request->name;
        try {
            $d = LowDistortion::propose($name, $base->datum, $geodetic, $geodeticName, $area, $request->height);
        } catch (\DomainException $e) {
            throw new UnusableInput('/height', $e->getMessage());
        }

        return new Design(
            $d['system'], $base->datum->name, $d['method'], $d['scale'], $d['ppm'], $d['other'], $current, $area,
            $request->height,
        );
    }

    public function view(Design $d, ?int $kept): DesignView
    {
        $samples = $own = [];
        for ($i = 0; null !== $d->current && $i <= self::SAMPLES; ++$i) {
            for ($j = 0; $j <= self::SAMPLES; ++$j) {
                $lat = $d->area->south + ($d->area->north - $d->area->south) * $i / self::SAMPLES;
                $lon = $d->area->west + $d->area->width() * $j / self::SAMPLES;
                [$e, $n] = $d->current->fromGeographic(deg2rad($lat), deg2rad($lon));
                $samples[] = ['e' => $e, 'n' => $n, 'ppm' => LowDistortion::ppm($d->system, $lat, $lon, $d->height)];
                $own[] = LowDistortion::ppm($d->current, $lat, $lon, $d->height);
            }
        }
        [$lat, $lon] = array_map(static fn (int $code): float => rad2deg($d->system->conversion->values[$code] ?? 0.0), self::ORIGIN);

        return new DesignView(
            $d->datum, $d->method, $d->scale, $lat, $lon, $d->ppm['min'], $d->ppm['max'], $d->ppm['mean'],
            $d->other['method'], $d->other['min'],
            $d->other['max'], [] === $own ? null : min($own), [] === $own ? null : max($own),
            rtrim(WktWriter::write(new CoordinateSystem($d->system))), $samples, $kept,
        );
    }

    private function area(Project $project, DesignRequest $r): Area
    {
        if (null === $r->south || null === $r->west || null === $r->north || null === $r->east) {
            $reason = 'the project has no points known globally; give the corners of the site';

            return $this->references->extent($project) ?? throw new UnusableInput('/south', $reason);
        }
        try {
            return new Area($r->south, $r->west, $r->north, $r->east);
        } catch (\DomainException $e) {
            throw new UnusableInput('/south', $e->getMessage());
        }
    }
}
