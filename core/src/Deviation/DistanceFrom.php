<?php

declare(strict_types=1);

namespace Mensura\Deviation;

use Mensura\Mesh\FaceTree;
use Mensura\Mesh\Mesh;

/**
 * Signed distance from a mesh: to its nearest point, positive on the side of the upward normal. The sign is that of the
 * angle-weighted pseudo-normal there (Baerentzen and Aanaes 2005, IEEE Trans. Vis. Comp. Graph. 11(3), sections 3 and 4).
 */
final class DistanceFrom
{
    /** Metres beyond a border edge, across it, from where on a point lies outside the mesh. */
    private const BEYOND = 1e-3;

    private FaceTree $tree;

    /** @var list<float> unit normals, three a face; zero without an area */
    private array $face = [];

    /** @var list<float> sums of the normals of the faces at an edge, three an edge */
    private array $edge;

    /** @var list<float> sums of normals weighted with the angle, three a corner */
    private array $corner;

    /** @var array<int, list<int>> border half-edges that begin or end at a corner */
    private array $border = [];

    private readonly float $x0;
    private readonly float $y0;
    private readonly float $z0;

    public function __construct(private readonly Mesh $mesh)
    {
        [$this->x0, $this->y0, $this->z0] = [min($mesh->x), min($mesh->y), min($mesh->z)];
        $this->tree = new FaceTree($mesh, $this->x0, $this->y0, $this->z0);
        $this->edge = array_fill(0, 3 * $mesh->edges, 0.0);
        $this->corner = array_fill(0, 3 * \count($mesh->x), 0.0);
        $t = $mesh->triangles;
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            $normal = $this->normal($t[$h], $t[$h + 1], $t[$h + 2]);
            array_push($this->face, ...$normal);
            for ($k = 0; $k < 3; ++$k) {
                $angle = $this->angle($t[$h + $k], $t[$h + ($k + 1) % 3], $t[$h + ($k + 2) % 3]);
                for ($c = 0; $c < 3; ++$c) {
                    $this->edge[3 * $mesh->edge[$h + $k] + $c] += $normal[$c];
                    $this->corner[3 * $t[$h + $k] + $c] += $angle * $normal[$c];
                }
                if (Mesh::BORDER === $mesh->opposite[$h + $k]) {
                    $this->border[$t[$h + $k]][] = $h + $k;
                    $this->border[$t[$h + ($k + 1) % 3]][] = $h + $k;
                }
            }
        }
    }

    /** @return float metres; NAN beside the mesh */
    public function at(float $px, float $py, float $pz): float
    {
        $tree = $this->tree;
        $tree->nearest($px, $py, $pz);
        $dx = $px - $this->x0 - $tree->qx;
        $dy = $py - $this->y0 - $tree->qy;
        $dz = $pz - $this->z0 - $tree->qz;
        $f = $tree->face();
        if (FaceTree::FACE === $tree->feature) {
            $o = 3 * $f;
            $sign = $dx * $this->face[$o] + $dy * $this->face[$o + 1] + $dz * $this->face[$o + 2];
        } elseif ($tree->feature < FaceTree::EDGE) {
            $v = $this->mesh->triangles[3 * $f + $tree->feature - FaceTree::CORNER];
            foreach ($this->border[$v] ?? [] as $h) {
                if ($this->across($h, $dx, $dy, $dz) > self::BEYOND) {
                    return \NAN;
                }
            }
            $o = 3 * $v;
            $sign = $dx * $this->corner[$o] + $dy * $this->corner[$o + 1] + $dz * $this->corner[$o + 2];
        } else {
            $h = 3 * $f + $tree->feature - FaceTree::EDGE;
            if (Mesh::BORDER === $this->mesh->opposite[$h] && $this->across($h, $dx, $dy, $dz) > self::BEYOND) {
                return \NAN;
            }
            $o = 3 * $this->mesh->edge[$h];
            $sign = $dx * $this->edge[$o] + $dy * $this->edge[$o + 1] + $dz * $this->edge[$o + 2];
        }

        return $sign < 0.0 ? -sqrt($tree->squared) : sqrt($tree->squared);
    }

    /** How far an offset reaches out over a border edge, in the plane of its face. */
    private function across(int $h, float $dx, float $dy, float $dz): float
    {
        $m = $this->mesh;
        $u = $m->triangles[$h];
        $v = $m->triangles[2 === $h % 3 ? $h - 2 : $h + 1];
        $o = 3 * intdiv($h, 3);
        [$ex, $ey, $ez] = [$m->x[$v] - $m->x[$u], $m->y[$v] - $m->y[$u], $m->z[$v] - $m->z[$u]];
        [$nx, $ny, $nz] = [$this->face[$o], $this->face[$o + 1], $this->face[$o + 2]];
        $length = sqrt($ex * $ex + $ey * $ey + $ez * $ez);

        return ($dx * ($ey * $nz - $ez * $ny) + $dy * ($ez * $nx - $ex * $nz) + $dz * ($ex * $ny - $ey * $nx)) / $length;
    }

    /** @return array{float, float, float} */
    private function normal(int $a, int $b, int $c): array
    {
        $m = $this->mesh;
        [$ux, $uy, $uz] = [$m->x[$b] - $m->x[$a], $m->y[$b] - $m->y[$a], $m->z[$b] - $m->z[$a]];
        [$vx, $vy, $vz] = [$m->x[$c] - $m->x[$a], $m->y[$c] - $m->y[$a], $m->z[$c] - $m->z[$a]];
        [$nx, $ny, $nz] = [$uy * $vz - $uz * $vy, $uz * $vx - $ux * $vz, $ux * $vy - $uy * $vx];
        $length = sqrt($nx * $nx + $ny * $ny + $nz * $nz);

        return $length > 0.0 ? [$nx / $length, $ny / $length, $nz / $length] : [0.0, 0.0, 0.0];
    }

    /** Angle of a face at a corner, radians. */
    private function angle(int $a, int $b, int $c): float
    {
        $m = $this->mesh;
        [$ux, $uy, $uz] = [$m->x[$b] - $m->x[$a], $m->y[$b] - $m->y[$a], $m->z[$b] - $m->z[$a]];
        [$vx, $vy, $vz] = [$m->x[$c] - $m->x[$a], $m->y[$c] - $m->y[$a], $m->z[$c] - $m->z[$a]];

        return atan2(
            sqrt(($uy * $vz - $uz * $vy) ** 2 + ($uz * $vx - $ux * $vz) ** 2 + ($ux * $vy - $uy * $vx) ** 2),
            $ux * $vx + $uy * $vy + $uz * $vz,
        );
    }
}
