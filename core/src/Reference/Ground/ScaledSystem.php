<?php

declare(strict_types=1);

namespace Mensura\Reference\Ground;

use Mensura\Reference\Crs\Conversion;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Method\Methods;
use Mensura\Reference\UnsupportedMethod;

/**
 * A projected system scaled to the ground about a point: distances there are those measured, and the point keeps its
 * coordinates. Scaling the projection's own scale factor and false origin does it exactly for every method that has one.
 */
final class ScaledSystem
{
    /** Scale, easting and northing parameter of each method that can be scaled. */
    private const PARAMETERS = [
        9807 => [8805, 8806, 8807], 9801 => [8805, 8806, 8807], 9809 => [8805, 8806, 8807],
        9810 => [8805, 8806, 8807], 9804 => [8805, 8806, 8807], 9812 => [8815, 8806, 8807],
        9815 => [8815, 8816, 8817], 1051 => [1038, 8826, 8827],
    ];

    /**
     * @param float $factor ground over grid, 1 / combined factor
     *
     * @throws UnsupportedMethod
     */
    public static function about(HorizontalSystem $system, string $name, float $e, float $n, float $factor): HorizontalSystem
    {
        $conversion = $system->conversion ?? throw new UnsupportedMethod($system->label().' is not projected');
        $method = 9802 === $conversion->method ? 1051 : $conversion->method;
        [$scale, $east, $north] = self::PARAMETERS[$method] ?? throw new UnsupportedMethod(\sprintf(
            '%s is by a method without a scale factor that can be changed; use a localization with its scale held instead',
            $system->label(),
        ));
        if ($factor < 0.5 || $factor > 2.0 || is_nan($factor)) {
            throw new UnsupportedMethod(\sprintf('a ground factor of %s is not near 1', $factor));
        }
        $values = $conversion->values;
        $values[$scale] = ($values[$scale] ?? 1.0) * $factor;
        $values[$east] = $e + $factor * (($values[$east] ?? 0.0) - $e);
        $values[$north] = $n + $factor * (($values[$north] ?? 0.0) - $n);
        $scaled = new Conversion($method, $values, $name);

        return new HorizontalSystem(
            HorizontalSystem::PROJECTED, null, $name, $system->datum, $system->geodetic, 2, $scaled,
            Methods::projection($scaled, $system->ellipsoid()), $system->unit, $system->unitName, $system->axes,
            $system->area, binding: $system->binding, geodeticName: $system->geodeticName,
        );
    }
}
