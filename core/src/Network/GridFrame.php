<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\OutsideGrid;
use Mensura\Reference\OutsideProjection;

/**
 * A projected system solved in three dimensions on its ellipsoid. Heights are ellipsoidal, or above a geoid model;
 * the slope of the geoid is carried in the Jacobian.
 *
 * The horizon of a station is that of its plumb line: the normal of the ellipsoid turned by the deflection, so that astronomic
 * latitude and longitude are latitude + xi and longitude + eta / cos(latitude) (Heiskanen and Moritz 1967, equation 2-224).
 *
 * The Jacobian from grid coordinates to the local horizon comes from central differences of the projection
 * (step 1e-6 rad, relative error below 1e-9), so that it holds for any projection.
 */
final class GridFrame implements Frame
{
    private const STEP_RADIANS = 1e-6;

    private readonly float $meridian;

    private readonly Deflection $deflection;

    public function __construct(
        public readonly HorizontalSystem $system,
        public readonly ?GeoidGrid $geoid = null,
        ?Deflection $deflection = null,
    ) {
        $this->deflection = $deflection ?? Deflection::none();
        if (!$system->isProjected() || 1.0 !== $system->unit) {
            throw new UnusableInput('frame.crs', \sprintf(
                '%s is %s; an adjustment needs a projected system in metres', $system->label(),
                $system->isProjected() ? 'in '.$system->unitName : $system->kind,
            ));
        }
        $this->meridian = deg2rad($system->datum->primeMeridian);
    }

    public function isPlane(): bool
    {
        return false;
    }

    public function geometry(float $e, float $n, float $h): array
    {
        $projection = $this->system->plane();
        $ellipsoid = $this->system->ellipsoid();
        try {
            [$lat, $lon] = $projection->inverse($e, $n);
            $d = self::STEP_RADIANS;
            [$e1, $n1] = $projection->forward($lat + $d, $lon);
            [$e0, $n0] = $projection->forward($lat - $d, $lon);
            $eLat = ($e1 - $e0) / (2 * $d);
            $nLat = ($n1 - $n0) / (2 * $d);
            [$e1, $n1] = $projection->forward($lat, $lon + $d);
            [$e0, $n0] = $projection->forward($lat, $lon - $d);
            $eLon = ($e1 - $e0) / (2 * $d);
            $nLon = ($n1 - $n0) / (2 * $d);
        } catch (OutsideProjection $x) {
            throw new UnusableInput(
                '',
                \sprintf('a station at e %.3f, n %.3f is outside %s: %s', $e, $n, $this->system->label(), $x->getMessage()),
            );
        }
        $upLat = $upLon = 0.0;
        $lon += $this->meridian;
        if (null !== $this->geoid) {
            $h += $this->undulation($lat, $lon);
            $upLat = ($this->undulation($lat + $d, $lon) - $this->undulation($lat - $d, $lon)) / (2 * $d);
            $upLon = ($this->undulation($lat, $lon + $d) - $this->undulation($lat, $lon - $d)) / (2 * $d);
        }
        $det = $eLat * $nLon - $eLon * $nLat;
        $m = $ellipsoid->meridian($lat) + $h;
        $v = $ellipsoid->primeVertical($lat) + $h;
        $sinLat = sin($lat);
        $cosLat = cos($lat);
        $sinLon = sin($lon);
        $cosLon = cos($lon);
        $east = $v * $cosLat / $det;
        $north = $m / $det;

        $axes = self::axes($lat, $lon);
        $jacobian = [
            -$nLat * $east, $eLat * $east, 0.0,
            $nLon * $north, -$eLon * $north, 0.0,
            ($upLat * $nLon - $upLon * $nLat) / $det, ($upLon * $eLat - $upLat * $eLon) / $det, 1.0,
        ];
        if (!$this->deflection->isNone()) {
            // The geoid rises towards where the plumb line is turned away from: xi = -dN/dlat / M, eta = -dN/dlon / (N cos lat).
            $xi = $this->deflection->fromGeoid ? -$upLat / $m : $this->deflection->xi;
            $eta = $this->deflection->fromGeoid ? -$upLon / ($v * $cosLat) : $this->deflection->eta;
            $turned = self::axes($lat + $xi, $lon + $eta / $cosLat);
            $jacobian = self::product(self::product($turned, $axes, true), $jacobian, false);
            $axes = $turned;
        }

        return [
            'position' => $ellipsoid->toCartesian($lat, $lon, $h),
            'axes' => $axes,
            'jacobian' => $jacobian,
            'curvature' => [1.0 / $m, 1.0 / $v, $sinLat / $cosLat / $v],
            'lat' => $lat,
            'lon' => $lon,
        ];
    }

    /** @return array{float, float, float, float, float, float, float, float, float} rows east, north, up */
    private static function axes(float $lat, float $lon): array
    {
        $sinLat = sin($lat);
        $cosLat = cos($lat);
        $sinLon = sin($lon);
        $cosLon = cos($lon);

        return [
            -$sinLon, $cosLon, 0.0,
            -$sinLat * $cosLon, -$sinLat * $sinLon, $cosLat,
            $cosLat * $cosLon, $cosLat * $sinLon, $sinLat,
        ];
    }

    /**
     * Of two 3 by 3 matrices, the second turned over if wished.
     *
     * @param array{float, float, float, float, float, float, float, float, float} $a
     * @param array{float, float, float, float, float, float, float, float, float} $b
     *
     * @return array{float, float, float, float, float, float, float, float, float}
     */
    private static function product(array $a, array $b, bool $turned): array
    {
        $c = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        for ($i = 0; $i < 3; ++$i) {
            for ($j = 0; $j < 3; ++$j) {
                for ($k = 0; $k < 3; ++$k) {
                    $c[3 * $i + $j] += $a[3 * $i + $k] * ($turned ? $b[3 * $j + $k] : $b[3 * $k + $j]);
                }
            }
        }

        return $c;
    }

    public function coordinates(float $x, float $y, float $z): array
    {
        try {
            [$lat, $lon, $h] = $this->system->ellipsoid()->toGeodetic($x, $y, $z);
            [$e, $n] = $this->system->fromGeographic($lat, $lon);
        } catch (\DomainException $x) {
            throw new UnusableInput('', \sprintf('a station is outside %s: %s', $this->system->label(), $x->getMessage()));
        }

        return [$e, $n, null === $this->geoid ? $h : $h - $this->undulation($lat, $lon)];
    }

    /** Geoid height at a position in radians; zero without a geoid. */
    public function undulation(float $lat, float $lon): float
    {
        if (null === $this->geoid) {
            return 0.0;
        }
        try {
            return $this->geoid->height(rad2deg($lat), rad2deg($lon));
        } catch (OutsideGrid $x) {
            throw new UnusableInput('frame.geoid', $x->getMessage());
        }
    }
}
