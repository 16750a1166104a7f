<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\OutsideGrid;
use Mensura\Reference\Operation\MissingGrid;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\Route;
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
    public static function between(ProjectReference $references, Project $project, HorizontalSystem $from, ?GeoidGrid $fromGeoid, HorizontalSystem $to, ?GeoidGrid $toGeoid, ?Area $area, ?string $prefer = null, ?float $epoch = null): self
    {
        try {
            $route = $references->finder($project->id())->route(
                new CoordinateSystem(ProjectReference::spatial($from)), new CoordinateSystem(ProjectReference::spatial($to)),
                new RouteSettings(area: null === $prefer ? $area : null, epoch: $epoch, prefer: $prefer),
            );
        } catch (MissingGrid $e) {
            throw new UnusableInput('/operation', $e->getMessage().'. Import the grid file, or choose another transformation yourself');
        } catch (NoWay $e) {
            throw new UnusableInput('/operation', $e->getMessage().'. Make an own system that states its transformation (towgs84 in a PROJ string, BOUNDCRS in WKT2)');
        }

        return new self($from, $fromGeoid, $to, $toGeoid, $route);
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
            $height = ($h ?? 0.0) + ($this->fromGeoid?->height(rad2deg($lat), rad2deg($lon)) ?? 0.0);
            if (!$this->route->isIdentity()) {
                [$lat, $lon, $height] = $this->route->apply($lat, $lon, $height);
            }
            [$x, $y] = $this->from === $this->to ? [$e, $n] : $this->to->fromGeographic($lat, $lon);

            return [$x, $y, null === $h ? null : $height - ($this->toGeoid?->height(rad2deg($lat), rad2deg($lon)) ?? 0.0)];
        } catch (OutsideGrid $e) {
            throw new UnusableInput('/geoid', \sprintf('%s: %s', $name, $e->getMessage()));
        } catch (MissingGrid $e) {
            throw new UnusableInput('/operation', $e->getMessage().'. Import the grid file, or choose another transformation yourself');
        } catch (\DomainException $e) {
            throw new UnusableInput('/reference', \sprintf('%s cannot follow: %s', $name, $e->getMessage()));
        }
    }
}
