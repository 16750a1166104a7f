<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

/** Arcs of a drawing as chords, near enough that the arc leaves them by no more than a hundredth of a unit. */
final class DxfCurves
{
    private const SAGITTA = 0.01;
    private const MOST = 720;

    /**
     * Corners of an arc, both ends included.
     *
     * @param float $from radians from the x axis, anticlockwise
     * @param float $turn radians, positive anticlockwise
     *
     * @return list<array{float, float, float}>
     */
    public static function arc(float $x, float $y, float $z, float $radius, float $from, float $turn): array
    {
        $r = abs($radius);
        $step = $r > self::SAGITTA ? 2.0 * acos(1.0 - self::SAGITTA / $r) : \M_PI / 4.0;
        $count = max(1, min(self::MOST, (int) ceil(abs($turn) / $step)));
        $corners = [];
        for ($i = 0; $i <= $count; ++$i) {
            $a = $from + $turn * $i / $count;
            $corners[] = [$x + $r * cos($a), $y + $r * sin($a), $z];
        }

        return $corners;
    }

    /**
     * Corners of a polyline whose parts may be arcs. The bulge of a part is the tangent of a quarter of its angle, positive
     * anticlockwise (DXF reference, LWPOLYLINE group 42).
     *
     * @param list<array{float, float, float, float}> $vertices x, y, z, bulge of the part that begins there
     *
     * @return list<array{float, float, float}> a closed one ends where it began
     */
    public static function polyline(array $vertices, bool $isClosed): array
    {
        $corners = [];
        $n = \count($vertices);
        foreach ($vertices as $i => [$x, $y, $z, $bulge]) {
            $corners[] = [$x, $y, $z];
            if (0.0 === $bulge || $i + 1 === $n && !$isClosed) {
                continue;
            }
            [$toX, $toY] = $vertices[($i + 1) % $n];
            $turn = 4.0 * atan($bulge);
            $chord = hypot($toX - $x, $toY - $y);
            if (0.0 === $chord || 0.0 === sin(0.5 * $turn)) {
                continue;
            }
            $radius = 0.5 * $chord / sin(0.5 * $turn);
            $toCentre = $radius * cos(0.5 * $turn);
            $cx = 0.5 * ($x + $toX) - $toCentre * ($toY - $y) / $chord;
            $cy = 0.5 * ($y + $toY) + $toCentre * ($toX - $x) / $chord;
            $arc = self::arc($cx, $cy, $z, $radius, atan2($y - $cy, $x - $cx), $turn);
            $corners = [...$corners, ...\array_slice($arc, 1, -1)];
        }
        if ($isClosed && $n > 1) {
            $corners[] = $corners[0];
        }

        return $corners;
    }
}
