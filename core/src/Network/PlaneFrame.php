<?php

declare(strict_types=1);

namespace Mensura\Network;

/** A flat local system: e, n, h right-angled, metres. */
final class PlaneFrame implements Frame
{
    private const IDENTITY = [1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0];

    public function isPlane(): bool
    {
        return true;
    }

    public function geometry(float $e, float $n, float $h): array
    {
        return [
            'position' => [$e, $n, $h], 'axes' => self::IDENTITY, 'jacobian' => self::IDENTITY,
            'curvature' => [0.0, 0.0, 0.0], 'lat' => null, 'lon' => null,
        ];
    }

    public function coordinates(float $x, float $y, float $z): array
    {
        return [$x, $y, $z];
    }
}
