<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Grid\Ntv2Grid;
use Mensura\Reference\Grid\OutsideGrid;

/** Horizontal shifts from NTv2 grids, the first that covers the position. Longitudes are counted from the grid's own meridian. */
final readonly class GridStep implements Step
{
    /**
     * @param non-empty-list<Ntv2Grid> $grids
     * @param float                    $meridian degrees east of Greenwich from which the grid counts
     */
    public function __construct(private array $grids, private bool $reverse, private float $meridian = 0.0)
    {
    }

    public function apply(float $lat, float $lon, float $h): array
    {
        $latDegrees = rad2deg($lat);
        $lonDegrees = rad2deg($lon) - $this->meridian;
        if ($lonDegrees > 180.0) {
            $lonDegrees -= 360.0;
        } elseif ($lonDegrees < -180.0) {
            $lonDegrees += 360.0;
        }
        foreach ($this->grids as $grid) {
            if ($grid->contains($latDegrees, $lonDegrees)) {
                [$dLat, $dLon] = $this->reverse ? $grid->shiftBack($latDegrees, $lonDegrees) : $grid->shift($latDegrees, $lonDegrees);

                return [$lat + deg2rad($dLat), $lon + deg2rad($dLon), $h];
            }
        }

        throw OutsideGrid::at($this->grids[0]->name, $latDegrees, $lonDegrees);
    }
}
