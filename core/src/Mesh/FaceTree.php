<?php

declare(strict_types=1);

namespace Mensura\Mesh;

/**
 * Nearest face of a mesh: faces in the order of their Morton codes in the leaves of a complete binary tree of boxes (Lauterbach
 * and others 2009, "Fast BVH construction on GPUs", section 3, from memory). Nearest point of a triangle after Ericson, "Real-Time
 * Collision Detection" (2005), section 5.1.5, from memory.
 */
final class FaceTree
{
    public const FACE = 0;
    /** Corner k is 1 + k, the edge from corner k to the next 4 + k. */
    public const CORNER = 1;
    public const EDGE = 4;

    private const LEAF = 4;

    /** @var list<float> nine coordinates a face, in the order of the leaves */
    private array $corner = [];

    /** @var list<int> face in that order */
    private array $face = [];

    private int $leaves = 1;

    /** @var list<float> boxes of the nodes: six values each; node 1 is the root, 2n and 2n + 1 are below n */
    private array $box = [];

    /** @var list<int> per leaf, and one more: where its faces begin */
    private array $start = [];

    private int $last = 0;

    public float $squared = \INF;
    public int $found = -1;
    public int $feature = self::FACE;
    public float $qx = 0.0;
    public float $qy = 0.0;
    public float $qz = 0.0;

    /** @param float $x0 taken off all coordinates, so that large ones lose nothing */
    public function __construct(Mesh $mesh, private readonly float $x0, private readonly float $y0, private readonly float $z0)
    {
        $order = $this->order($mesh);
        foreach ($order as $f) {
            $this->face[] = $f;
            for ($k = 0; $k < 3; ++$k) {
                $v = $mesh->triangles[3 * $f + $k];
                array_push($this->corner, $mesh->x[$v] - $x0, $mesh->y[$v] - $y0, $mesh->z[$v] - $z0);
            }
        }
        $count = \count($this->face);
        while ($this->leaves * self::LEAF < $count) {
            $this->leaves *= 2;
        }
        $this->box = array_fill(0, 12 * $this->leaves, 0.0);
        for ($i = 0; $i <= $this->leaves; ++$i) {
            $this->start[] = intdiv($i * $count, $this->leaves);
        }
        for ($node = 2 * $this->leaves - 1; $node > 0; --$node) {
            $this->enclose($node);
        }
    }

    /** Nearest place of the mesh; what is found stands in the public properties, the place less the origin. */
    public function nearest(float $px, float $py, float $pz): void
    {
        $px -= $this->x0;
        $py -= $this->y0;
        $pz -= $this->z0;
        $this->squared = \INF;
        // Places often come in the order they lie in: the face found last gives a first bound.
        $this->against($this->last, $px, $py, $pz);
        $box = $this->box;
        $leaves = $this->leaves;
        $stack = [1];
        $distances = [0.0];
        $top = 0;
        while ($top >= 0) {
            $node = $stack[$top];
            $far = $distances[$top--];
            if ($far >= $this->squared) {
                continue;
            }
            while ($node < $leaves) {
                $b = 12 * $node;
                $near = $this->squared;
                $dx = $px < $box[$b] ? $box[$b] - $px : ($px > $box[$b + 3] ? $px - $box[$b + 3] : 0.0);
                $dy = $py < $box[$b + 1] ? $box[$b + 1] - $py : ($py > $box[$b + 4] ? $py - $box[$b + 4] : 0.0);
                $dz = $pz < $box[$b + 2] ? $box[$b + 2] - $pz : ($pz > $box[$b + 5] ? $pz - $box[$b + 5] : 0.0);
                $one = $dx * $dx + $dy * $dy + $dz * $dz;
                $dx = $px < $box[$b + 6] ? $box[$b + 6] - $px : ($px > $box[$b + 9] ? $px - $box[$b + 9] : 0.0);
                $dy = $py < $box[$b + 7] ? $box[$b + 7] - $py : ($py > $box[$b + 10] ? $py - $box[$b + 10] : 0.0);
                $dz = $pz < $box[$b + 8] ? $box[$b + 8] - $pz : ($pz > $box[$b + 11] ? $pz - $box[$b + 11] : 0.0);
                $two = $dx * $dx + $dy * $dy + $dz * $dz;
                if ($one <= $two) {
                    if ($two < $near) {
                        $stack[++$top] = 2 * $node + 1;
                        $distances[$top] = $two;
                    }
                    $far = $one;
                    $node *= 2;
                } else {
                    if ($one < $near) {
                        $stack[++$top] = 2 * $node;
                        $distances[$top] = $one;
                    }
                    $far = $two;
                    $node = 2 * $node + 1;
                }
                if ($far >= $near) {
                    continue 2;
                }
            }
            for ($i = $this->start[$node - $leaves], $end = $this->start[$node - $leaves + 1]; $i < $end; ++$i) {
                $this->against($i, $px, $py, $pz);
            }
        }
    }

    /** Number of the face that was found. */
    public function face(): int
    {
        return $this->face[$this->found];
    }

    private function against(int $i, float $px, float $py, float $pz): void
    {
        $c = $this->corner;
        $o = 9 * $i;
        $ax = $c[$o];
        $ay = $c[$o + 1];
        $az = $c[$o + 2];
        $abx = $c[$o + 3] - $ax;
        $aby = $c[$o + 4] - $ay;
        $abz = $c[$o + 5] - $az;
        $acx = $c[$o + 6] - $ax;
        $acy = $c[$o + 7] - $ay;
        $acz = $c[$o + 8] - $az;
        $apx = $px - $ax;
        $apy = $py - $ay;
        $apz = $pz - $az;
        $d1 = $abx * $apx + $aby * $apy + $abz * $apz;
        $d2 = $acx * $apx + $acy * $apy + $acz * $apz;
        $feature = self::FACE;
        $s = 0.0;
        $t = 0.0;
        if ($d1 <= 0.0 && $d2 <= 0.0) {
            $feature = self::CORNER;
        } else {
            $bpx = $apx - $abx;
            $bpy = $apy - $aby;
            $bpz = $apz - $abz;
            $d3 = $abx * $bpx + $aby * $bpy + $abz * $bpz;
            $d4 = $acx * $bpx + $acy * $bpy + $acz * $bpz;
            if ($d3 >= 0.0 && $d4 <= $d3) {
                $feature = self::CORNER + 1;
                $s = 1.0;
            } else {
                $vc = $d1 * $d4 - $d3 * $d2;
                if ($vc <= 0.0 && $d1 >= 0.0 && $d3 <= 0.0) {
                    $feature = self::EDGE;
                    $s = $d1 / ($d1 - $d3);
                } else {
                    $cpx = $apx - $acx;
                    $cpy = $apy - $acy;
                    $cpz = $apz - $acz;
                    $d5 = $abx * $cpx + $aby * $cpy + $abz * $cpz;
                    $d6 = $acx * $cpx + $acy * $cpy + $acz * $cpz;
                    $vb = $d5 * $d2 - $d1 * $d6;
                    $va = $d3 * $d6 - $d5 * $d4;
                    if ($d6 >= 0.0 && $d5 <= $d6) {
                        $feature = self::CORNER + 2;
                        $t = 1.0;
                    } elseif ($vb <= 0.0 && $d2 >= 0.0 && $d6 <= 0.0) {
                        $feature = self::EDGE + 2;
                        $t = $d2 / ($d2 - $d6);
                    } elseif ($va <= 0.0 && $d4 - $d3 >= 0.0 && $d5 - $d6 >= 0.0) {
                        $feature = self::EDGE + 1;
                        $t = ($d4 - $d3) / ($d4 - $d3 + ($d5 - $d6));
                        $s = 1.0 - $t;
                    } else {
                        $sum = $va + $vb + $vc;
                        $s = $vb / $sum;
                        $t = $vc / $sum;
                    }
                }
            }
        }
        $dx = $apx - $s * $abx - $t * $acx;
        $dy = $apy - $s * $aby - $t * $acy;
        $dz = $apz - $s * $abz - $t * $acz;
        $squared = $dx * $dx + $dy * $dy + $dz * $dz;
        if ($squared < $this->squared) {
            $this->squared = $squared;
            $this->found = $i;
            $this->last = $i;
            $this->feature = $feature;
            $this->qx = $px - $dx;
            $this->qy = $py - $dy;
            $this->qz = $pz - $dz;
        }
    }

    private function enclose(int $node): void
    {
        [$x0, $y0, $z0, $x1, $y1, $z1] = [\INF, \INF, \INF, -\INF, -\INF, -\INF];
        if ($node >= $this->leaves) {
            for ($o = 9 * $this->start[$node - $this->leaves], $end = 9 * $this->start[$node - $this->leaves + 1]; $o < $end; $o += 3) {
                [$x, $y, $z] = [$this->corner[$o], $this->corner[$o + 1], $this->corner[$o + 2]];
                [$x0, $y0, $z0] = [min($x0, $x), min($y0, $y), min($z0, $z)];
                [$x1, $y1, $z1] = [max($x1, $x), max($y1, $y), max($z1, $z)];
            }
        } else {
            foreach ([12 * $node, 12 * $node + 6] as $b) {
                [$x0, $y0, $z0] = [min($x0, $this->box[$b]), min($y0, $this->box[$b + 1]), min($z0, $this->box[$b + 2])];
                [$x1, $y1, $z1] = [max($x1, $this->box[$b + 3]), max($y1, $this->box[$b + 4]), max($z1, $this->box[$b + 5])];
            }
        }
        // The boxes of two sisters stand side by side, where their mother looks for them.
        $b = 6 * $node;
        [$this->box[$b], $this->box[$b + 1], $this->box[$b + 2]] = [$x0, $y0, $z0];
        [$this->box[$b + 3], $this->box[$b + 4], $this->box[$b + 5]] = [$x1, $y1, $z1];
    }

    /** @return list<int> faces with an area, near ones near each other */
    private function order(Mesh $mesh): array
    {
        [$x, $y, $z, $t] = [$mesh->x, $mesh->y, $mesh->z, $mesh->triangles];
        [$lowX, $lowY, $lowZ] = [min($x), min($y), min($z)];
        $side = max(max($x) - $lowX, max($y) - $lowY, max($z) - $lowZ, 1e-9);
        $scale = 65535.0 / (3.0 * $side);
        $codes = [];
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            [$a, $b, $c] = [$t[$h], $t[$h + 1], $t[$h + 2]];
            if (0.0 === Mesh::area($x, $y, $z, $a, $b, $c)) {
                continue; // it joins its neighbours, but has no place of its own
            }
            $codes[intdiv($h, 3)] = self::spread((int) (($x[$a] + $x[$b] + $x[$c] - 3.0 * $lowX) * $scale))
                | self::spread((int) (($y[$a] + $y[$b] + $y[$c] - 3.0 * $lowY) * $scale)) << 1
                | self::spread((int) (($z[$a] + $z[$b] + $z[$c] - 3.0 * $lowZ) * $scale)) << 2;
        }
        asort($codes);

        return array_keys($codes);
    }

    /** Two empty bits after each of sixteen. */
    private static function spread(int $v): int
    {
        $v = ($v | $v << 16) & 0x0000FF0000FF;
        $v = ($v | $v << 8) & 0x00F00F00F00F;
        $v = ($v | $v << 4) & 0x0C30C30C30C3;

        return ($v | $v << 2) & 0x249249249249;
    }
}
