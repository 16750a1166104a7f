<?php

declare(strict_types=1);

namespace App\Reference;

use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\OutsideGrid;
use Mensura\Reference\Operation\MissingGrid;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\Route;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\Operation\RouteSettings;

/** The way of coordinates from one meaning to another: system and heights on either side. Metres in, metres out. */
final readonly class Movement
{
    private function __construct(
        private HorizontalSystem $from,
        private ?GeoidGrid $fromGeoid,
        private HorizontalSystem $to,
        private ?GeoidGrid $toGeoid,
        public Route $route,
    ) {
    }

    /**
     * @param ?Area   $area   one transformation for all points of this area
     * @param ?string $prefer name of the transformation chosen among the candidates
     */
    public static function between(
        RouteFinder $finder,
        Side $from,
        Side $to,
        ?Area $area,
        ?string $prefer = null,
        ?float $epoch = null,
    ): self {
        try {
            $route = $finder->route(
                new CoordinateSystem(ProjectReference::spatial($from->system)),
                new CoordinateSystem(ProjectReference::spatial($to->system)),
                new RouteSettings(area: null === $prefer ? $area : null, epoch: $epoch, prefer: $prefer),
            );
        } catch (MissingGrid $e) {
            throw new UnusableInput('/operation', $e->getMessage().'. Import the grid file, or choose another transformation yourself');
        } catch (NoWay $e) {
            $remedy = '. Make an own system that states its transformation (towgs84 in a PROJ string, BOUNDCRS in WKT2)';
            throw new UnusableInput('/operation', $e->getMessage().$remedy);
        }

        return new self($from->system, $from->geoid, $to->system, $to->geoid, $route);
    }

    /** Name of the one transformation between the datums; null where none is needed, or each place takes its own. */
    public function transformation(): ?string
    {
        foreach ($this->route->stages as $stage) {
            $candidates = $stage['choice']->candidates ?? [];
            if ('datum' === $stage['kind'] && 1 === \count($candidates) && !$candidates[0]->isIdentity()) {
                return $candidates[0]->name;
            }
        }

        return null;
    }

    /**
     * @return array{float, float, ?float} easting, northing, height
     *
     * @throws UnusableInput naming what it is about
     */
    public function apply(string $name, float $e, float $n, ?float $h): array
    {
        try {
            [$lat, $lon] = $this->from->toGeographic($e, $n);
        } catch (\DomainException $fault) {
            throw self::cannotFollow($name, $fault);
        }
        [$x, $y, $height] = $this->onward($name, $lat, $lon, $h);

        return $this->from === $this->to ? [$e, $n, $height] : [$x, $y, $height];
    }

    /**
     * From degrees of the system's datum, longitude from its prime meridian.
     *
     * @return array{float, float, ?float} easting, northing, height
     *
     * @throws UnusableInput naming what it is about
     */
    public function fromDegrees(string $name, float $lat, float $lon, ?float $h): array
    {
        return $this->onward($name, deg2rad($lat), deg2rad($lon + $this->from->datum->primeMeridian), $h);
    }

    /** @return array{float, float, ?float} */
    private function onward(string $name, float $lat, float $lon, ?float $h): array
    {
        try {
            $height = ($h ?? 0.0) + ($this->fromGeoid?->height(rad2deg($lat), rad2deg($lon)) ?? 0.0);
            if (!$this->route->isIdentity()) {
                [$lat, $lon, $height] = $this->route->apply($lat, $lon, $height);
            }
            [$x, $y] = $this->to->fromGeographic($lat, $lon);

            return [$x, $y, null === $h ? null : $height - ($this->toGeoid?->height(rad2deg($lat), rad2deg($lon)) ?? 0.0)];
        } catch (OutsideGrid $e) {
            throw new UnusableInput('/geoid', \sprintf('%s: %s', $name, $e->getMessage()));
        } catch (MissingGrid $e) {
            throw new UnusableInput('/operation', $e->getMessage().'. Import the grid file, or choose another transformation yourself');
        } catch (\DomainException $e) {
            throw self::cannotFollow($name, $e);
        }
    }

    private static function cannotFollow(string $name, \DomainException $fault): UnusableInput
    {
        return new UnusableInput('/reference', \sprintf('%s cannot follow: %s', $name, $fault->getMessage()));
    }
}
