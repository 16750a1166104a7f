<?php

declare(strict_types=1);

namespace Mensura\Surface;

/**
 * A triangulated irregular network: vertices in metres (easting, northing, height), anticlockwise triangles as
 * three vertex numbers each, and the opposite of every half-edge (-1 on the edge of the surface).
 */
final readonly class Tin
{
    /**
     * @param list<float>          $x
     * @param list<float>          $y
     * @param list<float>          $z
     * @param list<int>            $triangles
     * @param list<int>            $opposite
     * @param array<string, true>  $constraints constrained edges, "low high" vertex numbers
     */
    public function __construct(
        public array $x,
        public array $y,
        public array $z,
        public array $triangles,
        public array $opposite,
        public array $constraints = [],
    ) {
    }

    /**
     * A surface of which only the triangles are known; triangles that share an edge become neighbours.
     *
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     * @param list<int>   $triangles anticlockwise
     */
    public static function ofTriangles(array $x, array $y, array $z, array $triangles): self
    {
        $count = \count($x);
        $opposite = array_fill(0, \count($triangles), -1);
        $edges = [];
        foreach ($triangles as $h => $u) {
            $v = $triangles[2 === $h % 3 ? $h - 2 : $h + 1];
            $twin = $edges[$v * $count + $u] ?? null;
            if (null !== $twin) {
                $opposite[$h] = $twin;
                $opposite[$twin] = $h;
            }
            $edges[$u * $count + $v] = $h;
        }

        return new self($x, $y, $z, $triangles, array_values($opposite));
    }

    public function triangleCount(): int
    {
        return intdiv(\count($this->triangles), 3);
    }

    /**
     * @return array{
     *     points: int, triangles: int, planArea: float, surfaceArea: float, hMin: float, hMax: float,
     * } vertices in use, areas in square metres
     */
    public function statistics(): array
    {
        $plan = $surface = 0.0;
        $tri = $this->triangles;
        $x = $this->x;
        $y = $this->y;
        $z = $this->z;
        $seen = array_fill(0, max(1, \count($x)), 0);
        for ($h = 0, $end = \count($tri); $h < $end; $h += 3) {
            $a = $tri[$h];
            $b = $tri[$h + 1];
            $c = $tri[$h + 2];
            $seen[$a] = 1;
            $seen[$b] = 1;
            $seen[$c] = 1;
            $ux = $x[$b] - $x[$a];
            $uy = $y[$b] - $y[$a];
            $uz = $z[$b] - $z[$a];
            $vx = $x[$c] - $x[$a];
            $vy = $y[$c] - $y[$a];
            $vz = $z[$c] - $z[$a];
            $nz = $ux * $vy - $uy * $vx;
            $nx = $uy * $vz - $uz * $vy;
            $ny = $uz * $vx - $ux * $vz;
            $plan += 0.5 * $nz;
            $surface += 0.5 * sqrt($nx * $nx + $ny * $ny + $nz * $nz);
        }
        $low = \INF;
        $high = -\INF;
        $points = 0;
        foreach ($seen as $v => $used) {
            if (1 === $used) {
                ++$points;
                $height = $z[$v];
                if ($height < $low) {
                    $low = $height;
                }
                if ($height > $high) {
                    $high = $height;
                }
            }
        }

        return [
            'points' => $points, 'triangles' => $this->triangleCount(), 'planArea' => $plan,
            'surfaceArea' => $surface, 'hMin' => $low, 'hMax' => $high,
        ];
    }

    /**
     * The surface of some of the triangles.
     *
     * @param list<bool> $keep per triangle
     */
    public function only(array $keep): self
    {
        $to = [];
        $next = 0;
        foreach ($keep as $t => $kept) {
            $to[$t] = $kept ? $next++ : -1;
        }
        $triangles = $opposite = [];
        foreach ($this->triangles as $h => $v) {
            if ($to[intdiv($h, 3)] < 0) {
                continue;
            }
            $triangles[] = $v;
            $o = $this->opposite[$h];
            $opposite[] = $o < 0 || $to[intdiv($o, 3)] < 0 ? -1 : 3 * $to[intdiv($o, 3)] + $o % 3;
        }

        return new self($this->x, $this->y, $this->z, $triangles, $opposite, $this->constraints);
    }
}
