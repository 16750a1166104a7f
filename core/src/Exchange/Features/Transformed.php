<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features;

use Mensura\Exchange\Look\Systems;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Operation\Route;

/** Features brought from one system to another; heights pass unchanged between systems of two dimensions. */
final class Transformed
{
    public static function bring(FeatureSet $set, CoordinateSystem $from, CoordinateSystem $to, Route $route, string $name): void
    {
        foreach ($set->features as $i => $f) {
            foreach ($f->parts as $a => $rings) {
                foreach ($rings as $b => $ring) {
                    foreach ($ring as $c => [$x, $y, $h]) {
                        try {
                            $f->parts[$a][$b][$c] = self::place($from, $to, $route, $x, $y, $h);
                        } catch (\DomainException $e) {
                            $words = 'feature %d at %s %s cannot be brought to %s: %s';
                            throw new UnusableInput($name, \sprintf($words, $i + 1, $x, $y, $to->name(), $e->getMessage()));
                        }
                    }
                }
            }
        }
        self::say($set, $to);
    }

    /**
     * @return array{float, float, ?float}
     *
     * @throws \DomainException where a place lies outside of what the route is for
     */
    public static function place(CoordinateSystem $from, CoordinateSystem $to, Route $route, float $x, float $y, ?float $h): array
    {
        [$lat, $lon] = self::degrees($from->horizontal, $x, $y);
        [$lat, $lon, $height] = $route->apply($lat, $lon, $h ?? 0.0);

        return [...self::places($to->horizontal, $lat, $lon), null === $h ? null : $height];
    }

    /** What a system says of the coordinates in it. */
    public static function say(FeatureSet $set, CoordinateSystem $system): void
    {
        $h = $system->horizontal;
        $set->crs = null !== $h->code && str_starts_with($h->code, 'EPSG:') ? $h->code : null;
        $set->unit = $h->isProjected() ? Systems::unitOf($h->unit) : 'degree';
    }

    /** @return array{float, float} latitude and longitude from Greenwich, radians */
    private static function degrees(HorizontalSystem $h, float $x, float $y): array
    {
        return $h->isProjected() ? $h->toGeographic($x * $h->unit, $y * $h->unit)
            : [deg2rad($y), deg2rad($x + $h->datum->primeMeridian)];
    }

    /** @return array{float, float} */
    private static function places(HorizontalSystem $h, float $lat, float $lon): array
    {
        if (!$h->isProjected()) {
            return [rad2deg($lon) - $h->datum->primeMeridian, rad2deg($lat)];
        }
        [$e, $n] = $h->fromGeographic($lat, $lon);

        return [$e / $h->unit, $n / $h->unit];
    }
}
