<?php

declare(strict_types=1);

namespace Mensura\Deviation;

/** What measured points are held against. */
interface Reference
{
    /**
     * Deviations of points, metres: positive above, or on the side of the upward normal; NAN outside the reference.
     *
     * @param list<float>                   $x        easting, metres
     * @param list<float>                   $y        northing
     * @param list<float>                   $z        height
     * @param ?\Closure(float): void        $progress share done
     *
     * @return list<float>
     */
    public function deviations(array $x, array $y, array $z, Along $along, ?\Closure $progress = null): array;

    /** Greatest slope of it, metres a metre; null where it is level or upright. */
    public function steepest(): ?float;
}
