<?php

declare(strict_types=1);

namespace Mensura\Deviation;

use Mensura\Mesh\Mesh;

/** A mesh: heights over its faces, or distances from it along its normal. */
final class MeshReference implements Reference
{
    private const WALL = 50.0;

    /** How often progress is said. */
    private const STEP = 20000;

    public function __construct(private readonly Mesh $mesh)
    {
    }

    public function deviations(array $x, array $y, array $z, Along $along, ?\Closure $progress = null): array
    {
        $count = \count($x);
        $of = Along::Vertical === $along ? new HeightAbove($this->mesh) : new DistanceFrom($this->mesh);
        $found = array_fill(0, $count, \NAN);
        foreach (self::near($x, $y) as $done => $i) {
            if (null !== $progress && 0 === $done % self::STEP) {
                $progress($done / $count);
            }
            $found[$i] = $of->at($x[$i], $y[$i], $z[$i]);
        }

        return array_values($found);
    }

    /** Of the faces that are not upright: those steeper than fifty to one count as walls. */
    public function steepest(): ?float
    {
        [$x, $y, $z, $t] = [$this->mesh->x, $this->mesh->y, $this->mesh->z, $this->mesh->triangles];
        $steepest = 0.0;
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            [$a, $b, $c] = [$t[$h], $t[$h + 1], $t[$h + 2]];
            $plan = ($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) - ($x[$c] - $x[$a]) * ($y[$b] - $y[$a]);
            $area = Mesh::area($x, $y, $z, $a, $b, $c);
            if (abs($plan) * self::WALL > $area) {
                $steepest = max($steepest, sqrt(max(0.0, $area * $area - $plan * $plan)) / abs($plan));
            }
        }

        return $steepest > 0.0 ? $steepest : null;
    }

    /**
     * The points in an order in which those that follow each other lie near each other: so the faces they need are at hand.
     *
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return list<int>
     */
    private static function near(array $x, array $y): array
    {
        if ([] === $x) {
            return [];
        }
        [$x0, $y0] = [min($x), min($y)];
        $scale = 65535.0 / max(max($x) - $x0, max($y) - $y0, 1e-9);
        $codes = [];
        foreach ($x as $i => $e) {
            $a = (int) (($e - $x0) * $scale);
            $b = (int) (($y[$i] - $y0) * $scale);
            // One empty bit after each of sixteen (Morton 1966).
            $a = ($a | $a << 8) & 0x00FF00FF;
            $a = ($a | $a << 4) & 0x0F0F0F0F;
            $a = ($a | $a << 2) & 0x33333333;
            $b = ($b | $b << 8) & 0x00FF00FF;
            $b = ($b | $b << 4) & 0x0F0F0F0F;
            $b = ($b | $b << 2) & 0x33333333;
            $codes[] = ($a | $a << 1) & 0x55555555 | (($b | $b << 1) & 0x55555555) << 1;
        }
        asort($codes);

        return array_keys($codes);
    }
}
