<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Projection;

/** Inverse of a smooth projection by Newton's method on its own forward formula, so that the round trip closes to rounding. */
final class NewtonInverse
{
    /**
     * @return array{float, float} latitude, longitude
     *
     * @throws OutsideProjection when it does not converge
     */
    public static function solve(Projection $projection, float $e, float $n, float $lat, float $lon, string $name): array
    {
        $step = 1e-6;
        for ($i = 0; $i < 20; ++$i) {
            [$e0, $n0] = $projection->forward($lat, $lon);
            $de = $e - $e0;
            $dn = $n - $n0;
            $s = $lat > 0.0 ? -$step : $step;
            [$e1, $n1] = $projection->forward($lat + $s, $lon);
            [$e2, $n2] = $projection->forward($lat, $lon + $step);
            $a = ($e1 - $e0) / $s;
            $b = ($e2 - $e0) / $step;
            $c = ($n1 - $n0) / $s;
            $d = ($n2 - $n0) / $step;
            $det = $a * $d - $b * $c;
            if (0.0 === $det || is_nan($det)) {
                break;
            }
            $lat += ($d * $de - $b * $dn) / $det;
            $lon += ($a * $dn - $c * $de) / $det;
            if (abs($lat) > \M_PI_2) {
                $lat = $lat > 0.0 ? \M_PI_2 - 1e-9 : -\M_PI_2 + 1e-9;
            }
            if (abs($de) + abs($dn) < 1e-8) {
                return [$lat, $lon];
            }
        }
        [$e0, $n0] = $projection->forward($lat, $lon);
        if (abs($e - $e0) + abs($n - $n0) < 1e-5) {
            return [$lat, $lon];
        }

        throw Turn::outsidePlane($name, $e, $n);
    }
}
