<?php

declare(strict_types=1);

namespace Mensura\Network;

/**
 * The geometry observations live in. Every station has a Cartesian position, a local horizon (east, north, up)
 * and a Jacobian from its coordinates (e, n, h) to shifts in that horizon.
 */
interface Frame
{
    /** True when the frame is flat: no curvature, no refraction, vectors in e, n, h. */
    public function isPlane(): bool;

    /**
     * @return array{
     *     position: array{float, float, float},
     *     axes: array{float, float, float, float, float, float, float, float, float},
     *     jacobian: array{float, float, float, float, float, float, float, float, float},
     *     curvature: array{float, float, float},
     *     lat: ?float, lon: ?float}
     *     axes: rows east, north, up in Cartesian components; jacobian: rows east, north, up by columns e, n, h;
     *     curvature: 1/(M+h), 1/(N+h), tan(lat)/(N+h), zero in a plane; lat and lon in radians
     */
    public function geometry(float $e, float $n, float $h): array;

    /**
     * Coordinates of a Cartesian position.
     *
     * @return array{float, float, float} e, n, h
     */
    public function coordinates(float $x, float $y, float $z): array;
}
