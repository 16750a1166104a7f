<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;
use Mensura\Parallel\Forked;

/**
 * Volume between a surface and a reference, exact for plane triangles: each piece is a prism with a plane top and
 * bottom, cut along the line where they meet. Square and cubic metres. Cut is where the surface is above the reference.
 */
final class Volume
{
    private const AT_ONCE = 100_000;
    private const PARTS = 4;
    private float $cut = 0.0;
    private float $fill = 0.0;
    private float $areaCut = 0.0;
    private float $areaFill = 0.0;
    private float $planArea = 0.0;

    private function __construct()
    {
    }

    /** @return array{cut: float, fill: float, net: float, areaCut: float, areaFill: float, planArea: float} */
    public static function againstElevation(Tin $tin, float $elevation): array
    {
        $self = new self();
        $t = $tin->triangles;
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            [$a, $b, $c] = [$t[$h], $t[$h + 1], $t[$h + 2]];
            $self->add(
                [$tin->x[$a], $tin->x[$b], $tin->x[$c]],
                [$tin->y[$a], $tin->y[$b], $tin->y[$c]],
                [$tin->z[$a], $tin->z[$b], $tin->z[$c]], [$elevation, $elevation, $elevation], 3,
            );
        }

        return $self->totals();
    }

    /**
     * On the overlay of both triangulations; only the common area counts.
     *
     * @return array{cut: float, fill: float, net: float, areaCut: float, areaFill: float, planArea: float}
     *
     * @throws UnusableInput no common area
     */
    public static function againstSurface(Tin $tin, Tin $other): array
    {
        $self = new self();
        $pieces = new Pieces($tin, $other);
        $count = $tin->triangleCount() < self::AT_ONCE ? 1 : self::PARTS;
        // Always the same parts, summed in the same order: the sums do not depend on how many processors there are.
        $parts = Forked::map($count, static function (int $part) use ($pieces, $count): array {
            $sum = new self();
            $pieces->each($sum->add(...), $part, $count);

            return [$sum->cut, $sum->fill, $sum->areaCut, $sum->areaFill, $sum->planArea];
        });
        foreach ($parts as [$cut, $fill, $areaCut, $areaFill, $planArea]) {
            $self->cut += $cut;
            $self->fill += $fill;
            $self->areaCut += $areaCut;
            $self->areaFill += $areaFill;
            $self->planArea += $planArea;
        }
        if (!($self->planArea > 0.0)) {
            throw new UnusableInput('', 'the two surfaces have no common area');
        }

        return $self->totals();
    }

    /**
     * Of an overlay that is there already.
     *
     * @return array{cut: float, fill: float, net: float, areaCut: float, areaFill: float, planArea: float}
     */
    public static function ofOverlay(Overlay $overlay): array
    {
        $self = new self();
        $t = $overlay->triangles;
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            [$a, $b, $c] = [$t[$h], $t[$h + 1], $t[$h + 2]];
            $self->add(
                [$overlay->x[$a], $overlay->x[$b], $overlay->x[$c]], [$overlay->y[$a], $overlay->y[$b], $overlay->y[$c]],
                [$overlay->upper[$a], $overlay->upper[$b], $overlay->upper[$c]],
                [$overlay->lower[$a], $overlay->lower[$b], $overlay->lower[$c]], 3,
            );
        }

        return $self->totals();
    }

    /**
     * A convex piece whose height above the reference is plane.
     *
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $upper height of the surface
     * @param list<float> $lower and of the reference
     * @param int         $n     corners; what stands behind them does not count
     */
    private function add(array $x, array $y, array $upper, array $lower, int $n): void
    {
        $first = $upper[0] - $lower[0];
        $next = $upper[1] - $lower[1];
        for ($k = 1; $k < $n - 1; ++$k) {
            $area = 0.5 * (($x[$k] - $x[0]) * ($y[$k + 1] - $y[0]) - ($x[$k + 1] - $x[0]) * ($y[$k] - $y[0]));
            $this->planArea += $area;
            // In order of size, without an array to sort: this runs over every piece of millions.
            $low = $first;
            $middle = $next;
            $next = $high = $upper[$k + 1] - $lower[$k + 1];
            if ($middle < $low) {
                $other = $low;
                $low = $middle;
                $middle = $other;
            }
            if ($high < $middle) {
                $other = $high;
                $high = $middle;
                $middle = $other;
                if ($middle < $low) {
                    $other = $low;
                    $low = $middle;
                    $middle = $other;
                }
            }
            $mean = ($low + $middle + $high) / 3.0;
            if ($low >= 0.0) {
                if ($high > 0.0) {
                    $this->cut += $area * $mean;
                    $this->areaCut += $area;
                }
            } elseif ($high <= 0.0) {
                $this->fill -= $area * $mean;
                $this->areaFill += $area;
            } else {
                // The lone corner's side of the zero line is a triangle similar by the fractions along its two edges.
                if ($middle >= 0.0) {
                    $part = $area * ($low / ($low - $middle)) * ($low / ($low - $high));
                    $volume = -$part * $low / 3.0;
                    $this->fill += $volume;
                    $this->areaFill += $part;
                    $this->cut += $area * $mean + $volume;
                    $this->areaCut += $area - $part;
                } else {
                    $part = $area * ($high / ($high - $middle)) * ($high / ($high - $low));
                    $volume = $part * $high / 3.0;
                    $this->cut += $volume;
                    $this->areaCut += $part;
                    $this->fill += $volume - $area * $mean;
                    $this->areaFill += $area - $part;
                }
            }
        }
    }

    /** @return array{cut: float, fill: float, net: float, areaCut: float, areaFill: float, planArea: float} */
    private function totals(): array
    {
        return [
            'cut' => $this->cut, 'fill' => $this->fill, 'net' => $this->cut - $this->fill,
            'areaCut' => $this->areaCut, 'areaFill' => $this->areaFill, 'planArea' => $this->planArea,
        ];
    }
}
