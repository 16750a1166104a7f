<?php

declare(strict_types=1);

namespace Mensura\Cloud;

use Mensura\LinearAlgebra\SymmetricEigen;

/**
 * The surface that the points of a cloud stand for, as small planes: where a place is asked for, the plane by least squares of
 * distances at right angles through the points about the one nearest to it (point to plane, Chen and Medioni 1992, Image and
 * Vision Computing 10; planes as in Pearson 1901). Planes are found once a small cube of space, when first asked for. Metres.
 */
final class PlaneField
{
    /** Nothing of the cloud is near; what is near makes no plane. */
    private const NOTHING = -1;
    private const NO_PLANE = -2;

    /** Points a plane is meant to be fitted through, and at least. */
    private const WANTED = 18.0;
    private const LEAST = 6;
    /** Spread across the points of a plane as a part of the spread along them, squared: less is a line. */
    private const LINE = 0.03;
    private const THINNEST = 0.05;
    private const PRIME = 1_299_709;

    /** Radius of the planes. */
    public readonly float $radius;
    /** Side of the small cubes. */
    public readonly float $side;
    /** Middle distance of the points from their own planes. */
    public readonly float $noise;

    /** @var list<float> normals and, along them, distances of the planes from the origin */
    public array $nx = [];
    /** @var list<float> */
    public array $ny = [];
    /** @var list<float> */
    public array $nz = [];
    /** @var list<float> */
    public array $d = [];

    /** @var list<float> centres */
    private array $cx = [];
    /** @var list<float> */
    private array $cy = [];
    /** @var list<float> */
    private array $cz = [];

    /** @var array<int, int> plane by cube */
    private array $at = [];
    /** @var array<int, int> plane by the cube of the point it is about */
    private array $about = [];

    private readonly Neighbours $points;
    private float $roughest = \INF;

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     * @param float       $within distance beyond which nothing counts as near
     */
    public function __construct(
        private readonly array $x, private readonly array $y, private readonly array $z, private readonly float $within,
    ) {
        $this->points = new Neighbours($x, $y, $z);
        $this->radius = $this->sized();
        $this->side = 0.5 * $this->radius;
        $roughness = [];
        $n = \count($x);
        for ($i = 0, $step = max(1, intdiv($n, 400)); $i < $n; $i += $step) {
            $fit = $this->fitted($x[$i], $y[$i], $z[$i]);
            if (null !== $fit) {
                $roughness[] = $fit[6];
            }
        }
        sort($roughness);
        $this->noise = $roughness[intdiv(\count($roughness), 2)] ?? 0.0;
        // Edges, leaves and what else is no surface.
        $this->roughest = 2.5 * $this->noise + 0.005;
    }

    public function isNear(float $x, float $y, float $z): bool
    {
        return null !== $this->points->nearest($x, $y, $z, $this->within);
    }

    /**
     * Planes of many places, moved.
     *
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{list<int>, list<float>} plane of each, and the signed distance from it; INF where there is none
     */
    public function distances(array $x, array $y, array $z, float $dx = 0.0, float $dy = 0.0, float $dz = 0.0): array
    {
        $side = $this->side;
        // Far out across a plane it says nothing any more.
        $most = 4.0 * $this->radius * $this->radius;
        $planes = $away = [];
        foreach ($x as $i => $e) {
            $e += $dx;
            $n = $y[$i] + $dy;
            $h = $z[$i] + $dz;
            [$a, $b, $c] = [(int) floor($e / $side), (int) floor($n / $side), (int) floor($h / $side)];
            $plane = $this->at[(($c & 0xFFFFF) * self::PRIME + ($b & 0xFFFFF)) * self::PRIME + ($a & 0xFFFFF)] ?? $this->found($a, $b, $c);
            $d = \INF;
            if ($plane >= 0) {
                $d = $this->nx[$plane] * $e + $this->ny[$plane] * $n + $this->nz[$plane] * $h - $this->d[$plane];
                $across = ($e - $this->cx[$plane]) ** 2 + ($n - $this->cy[$plane]) ** 2 + ($h - $this->cz[$plane]) ** 2 - $d * $d;
                if ($across > $most || abs($d) > $this->within) {
                    $d = \INF;
                }
            }
            $planes[] = $plane;
            $away[] = $d;
        }

        return [$planes, $away];
    }

    private function found(int $i, int $j, int $k): int
    {
        $side = $this->side;
        $key = (($k & 0xFFFFF) * self::PRIME + ($j & 0xFFFFF)) * self::PRIME + ($i & 0xFFFFF);
        $near = $this->points->nearest(($i + 0.5) * $side, ($j + 0.5) * $side, ($k + 0.5) * $side, $this->within + $side);
        if (null === $near) {
            return $this->at[$key] = self::NOTHING;
        }
        [$x, $y, $z] = [$this->x[$near], $this->y[$near], $this->z[$near]];
        [$a, $b, $c] = [(int) floor($x / $side), (int) floor($y / $side), (int) floor($z / $side)];
        $about = (($c & 0xFFFFF) * self::PRIME + ($b & 0xFFFFF)) * self::PRIME + ($a & 0xFFFFF);

        return $this->at[$key] = $this->about[$about] ??= $this->made($x, $y, $z);
    }

    private function made(float $x, float $y, float $z): int
    {
        $fit = $this->fitted($x, $y, $z);
        if (null === $fit || $fit[6] > $this->roughest) {
            return self::NO_PLANE;
        }
        [$this->cx[], $this->cy[], $this->cz[], $this->nx[], $this->ny[], $this->nz[]] = $fit;
        $this->d[] = $fit[0] * $fit[3] + $fit[1] * $fit[4] + $fit[2] * $fit[5];

        return \count($this->d) - 1;
    }

    /** @return ?array{float, float, float, float, float, float, float} centre, normal, and how far the points are off */
    private function fitted(float $x, float $y, float $z): ?array
    {
        for ($radius = $this->radius;; $radius = min(2.0 * $this->within, 1.6 * $radius)) {
            $fit = $this->plain($this->points->within($x, $y, $z, $radius), $x, $y, $z);
            if (null !== $fit || $radius >= min(2.0 * $this->within, 3.0 * $this->radius)) {
                return $fit;
            }
        }
    }

    /**
     * @param list<int> $points
     *
     * @return ?array{float, float, float, float, float, float, float}
     */
    private function plain(array $points, float $x, float $y, float $z): ?array
    {
        $n = \count($points);
        if ($n < self::LEAST) {
            return null;
        }
        $sx = $sy = $sz = $xx = $xy = $xz = $yy = $yz = $zz = 0.0;
        foreach ($points as $i) {
            [$dx, $dy, $dz] = [$this->x[$i] - $x, $this->y[$i] - $y, $this->z[$i] - $z];
            $sx += $dx;
            $sy += $dy;
            $sz += $dz;
            $xx += $dx * $dx;
            $xy += $dx * $dy;
            $xz += $dx * $dz;
            $yy += $dy * $dy;
            $yz += $dy * $dz;
            $zz += $dz * $dz;
        }
        [$sx, $sy, $sz] = [$sx / $n, $sy / $n, $sz / $n];
        $xy = $xy / $n - $sx * $sy;
        $xz = $xz / $n - $sx * $sz;
        $yz = $yz / $n - $sy * $sz;
        $m = [[$xx / $n - $sx * $sx, $xy, $xz], [$xy, $yy / $n - $sy * $sy, $yz], [$xz, $yz, $zz / $n - $sz * $sz]];
        [$values, $vectors] = SymmetricEigen::ofThree($m);
        asort($values);
        [$least, $middle, $most] = array_keys($values);
        if ($values[$middle] < self::LINE * $values[$most] || $values[$least] > self::THINNEST * $values[$middle]) {
            return null;
        }
        $off = sqrt(max(0.0, $values[$least]) * $n / ($n - 3));

        return [$x + $sx, $y + $sy, $z + $sz, $vectors[0][$least], $vectors[1][$least], $vectors[2][$least], $off];
    }

    /** A radius that most places on the surface have some points within. */
    private function sized(): float
    {
        $n = \count($this->x);
        $counts = [];
        $try = 0.5 * $this->within;
        for ($i = 0, $step = max(1, intdiv($n, 300)); $i < $n; $i += $step) {
            $counts[] = \count($this->points->within($this->x[$i], $this->y[$i], $this->z[$i], $try));
        }
        sort($counts);
        $middle = max(1, $counts[intdiv(\count($counts), 2)] ?? 1);

        return min($this->within, max(0.02 * $this->within, $try * sqrt(self::WANTED / $middle)));
    }
}
