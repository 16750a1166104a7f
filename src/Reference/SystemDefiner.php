<?php

declare(strict_types=1);

namespace App\Reference;

use App\Reference\Request\CustomSystemRequest;
use App\Reference\View\TriedView;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Axis;
use Mensura\Reference\Crs\Conversion;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Ground\GridPoint;
use Mensura\Reference\Method\Methods;
use Mensura\Reference\Text\WktWriter;

/** Reads the definition of an own system: a text, or a method with its parameters. */
final class SystemDefiner
{
    public function __construct(private readonly ProjectReference $references)
    {
    }

    /** @throws UnusableInput */
    public function defined(CustomSystemRequest $r): HorizontalSystem
    {
        try {
            return '' === trim($r->definition) ? $this->byMethod($r) : $this->byText($r->definition);
        } catch (UnusableInput $e) {
            throw $e;
        } catch (\DomainException $e) {
            throw new UnusableInput('/definition', $e->getMessage());
        }
    }

    /**
     * Reads a definition and places a known point with it; problems are said, not thrown, so that a form can show them
     * while it is typed.
     */
    public function tried(CustomSystemRequest $request): TriedView
    {
        try {
            $system = $this->defined($request);
        } catch (UnusableInput $e) {
            return new TriedView($request->name, '', '', '', null, null, null, null, null, null, $e->reason);
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
            } catch (\DomainException $fault) {
                $problem = $fault->getMessage();
            }
        }
        $wkt = rtrim(WktWriter::write(new CoordinateSystem($system)));
        $proj = SystemDescription::proj($system);

        return new TriedView($system->name, $system->datum->name, $wkt, $proj, $e, $n, $backLat, $backLon, $convergence, $scale, $problem);
    }

    private function byText(string $definition): HorizontalSystem
    {
        $read = $this->references->read($definition);
        if (null !== $read->vertical) {
            $reason = 'this is a compound system; heights are stated by the project\'s geoid, so give its horizontal part alone';
            throw new UnusableInput('/definition', $reason);
        }
        if (!$read->horizontal->isProjected()) {
            $reason = \sprintf('this system is %s; a project needs eastings and northings', $read->horizontal->kind);
            throw new UnusableInput('/definition', $reason);
        }

        return $read->horizontal;
    }

    private function byMethod(CustomSystemRequest $r): HorizontalSystem
    {
        [$method, $known] = Methods::METHODS[$r->method] ?? throw new UnusableInput('/method', 'choose a projection method');
        $base = $this->references->registry()->horizontalSystem($r->geodetic);
        if (HorizontalSystem::GEOGRAPHIC !== $base->kind) {
            throw new UnusableInput('/geodetic', $base->label().' is not a geographic system');
        }
        $values = [];
        foreach ($known as $code) {
            $value = $r->parameters[(string) $code] ?? null;
            if (!is_numeric($value)) {
                $words = null === $value ? '%s is missing' : '%s is not a number';
                throw new UnusableInput('/parameters/'.$code, \sprintf($words, Methods::PARAMETERS[$code]));
            }
            $isPlain = \in_array($code, [...Methods::LENGTHS, ...Methods::SCALES], true);
            $values[$code] = $isPlain ? (float) $value : deg2rad((float) $value);
        }
        $conversion = new Conversion($r->method, $values, $method);
        $axes = [new Axis('E', 'east'), new Axis('N', 'north')];

        return new HorizontalSystem(
            HorizontalSystem::PROJECTED, null, $r->name, $base->datum, $base->code, 2, $conversion,
            Methods::projection($conversion, $base->ellipsoid()), axes: $axes, geodeticName: $base->name,
        );
    }
}
