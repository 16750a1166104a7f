<?php

declare(strict_types=1);

namespace Mensura\Image;

/** A point from its rays in oriented images, by least squares of their residuals over their standard deviations. */
final class Intersection
{
    private const MOST = 30;

    /**
     * @param list<list<float>>                      $cameras
     * @param array<int, array{float, float, float}> $positions
     * @param array<int, list<float>>                $rotations
     */
    public function __construct(
        private readonly Block $b, private readonly array $cameras, private readonly array $positions, private readonly array $rotations,
    ) {
    }

    /**
     * @param list<int>                   $rays
     * @param ?array{float, float, float} $near where to begin
     *
     * @return ?array{array{float, float, float}, array{float, float, float}} coordinates and standard deviations
     */
    public function of(array $rays, ?array $near): ?array
    {
        $rays = array_values(array_filter($rays, fn (int $r): bool => isset($this->rotations[$this->b->rayImage[$r]])));
        if (\count($rays) < 2 || null === $near) {
            return null;
        }
        [$x, $y, $z] = $near;
        for ($k = 0; $k < self::MOST; ++$k) {
            $n = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
            $g = [0.0, 0.0, 0.0];
            foreach ($rays as $r) {
                $slopes = $this->slopes($r, $x, $y, $z);
                if (null === $slopes) {
                    return null;
                }
                foreach ($slopes as [$v, $a, $b, $c]) {
                    $n[0] += $a * $a;
                    $n[1] += $a * $b;
                    $n[2] += $a * $c;
                    $n[3] += $b * $b;
                    $n[4] += $b * $c;
                    $n[5] += $c * $c;
                    $g[0] -= $a * $v;
                    $g[1] -= $b * $v;
                    $g[2] -= $c * $v;
                }
            }
            $q = SymmetricThree::inverse($n, 1e-12 * $n[0] * $n[3] * $n[5]);
            if (null === $q) {
                return null;
            }
            $step = SymmetricThree::times($q, $g);
            [$x, $y, $z] = [$x + $step[0], $y + $step[1], $z + $step[2]];
            if ($step[0] * $g[0] + $step[1] * $g[1] + $step[2] * $g[2] < 1e-14) {
                return [[$x, $y, $z], [sqrt($q[0]), sqrt($q[3]), sqrt($q[5])]];
            }
        }

        return null;
    }

    /**
     * @return ?array{array{float, float, float, float}, array{float, float, float, float}} residual and slopes by the point, of x and y
     */
    private function slopes(int $r, float $px, float $py, float $pz): ?array
    {
        $i = $this->b->rayImage[$r];
        $m = $this->rotations[$i];
        $camera = $this->cameras[$this->b->cameraOf[$i]];
        [$e, $n, $h] = [$px - $this->positions[$i][0], $py - $this->positions[$i][1], $pz - $this->positions[$i][2]];
        [$x, $y, $z] = [
            $m[0] * $e + $m[3] * $n + $m[6] * $h, $m[1] * $e + $m[4] * $n + $m[7] * $h, $m[2] * $e + $m[5] * $n + $m[8] * $h,
        ];
        if ($z > -1e-12) {
            return null;
        }
        [$u, $v] = [-$x / $z, $y / $z];
        [$cx, $cy] = Lens::pixel($camera, $u, $v);
        [$uu, $uv, $vu, $vv] = Lens::slopes($camera, $u, $v);
        $g = 1.0 / $this->b->raySd[$r];
        $rows = [];
        foreach ([[$cx - $this->b->rayX[$r], $uu, $uv], [$cy - $this->b->rayY[$r], $vu, $vv]] as [$off, $su, $sv]) {
            [$a, $b, $c] = [-$g * $su / $z, $g * $sv / $z, $g * ($su * $x - $sv * $y) / ($z * $z)];
            $rows[] = [
                $g * $off, $a * $m[0] + $b * $m[1] + $c * $m[2], $a * $m[3] + $b * $m[4] + $c * $m[5], $a * $m[6] + $b * $m[7] + $c * $m[8],
            ];
        }

        return [$rows[0], $rows[1]];
    }
}
