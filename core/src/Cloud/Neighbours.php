<?php

declare(strict_types=1);

namespace Mensura\Cloud;

/**
 * The nearest neighbours of points among themselves, exactly. Points lie in cubes of a size that most hold a few; where the
 * cubes about a point do not hold enough near enough, cubes of twice the size are looked at. Flat arrays.
 */
final class Neighbours
{
    /** More than the cubes along an axis, and far from a power of two: a hash looks at the low bits alone. */
    private const PRIME = 1_299_709;

    /** @var list<array{float, list<int>, array<int, array{int, int}>}> side, points in the order of their cubes, first and count by cube */
    private array $levels = [];

    /** @var list<float> coordinates in the order of the smallest cubes: what is near in space is near in memory, however the file has it */
    private array $x;
    /** @var list<float> */
    private array $y;
    /** @var list<float> */
    private array $z;

    /** @var list<int> points in that order */
    private array $points;

    /** @var array<int, int> where in that order each point is */
    private array $at = [];

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     * @param int         $wanted neighbours that are asked for as a rule
     */
    public function __construct(array $x, array $y, array $z, private readonly int $wanted = 1)
    {
        [$this->x, $this->y, $this->z] = [$x, $y, $z];
        $this->points = [] === $x ? [] : $this->level(0)[1];
        foreach ($this->points as $k => $i) {
            $this->at[$i] = $k;
            $this->x[$k] = $x[$i];
            $this->y[$k] = $y[$i];
            $this->z[$k] = $z[$i];
        }
        $this->levels = [];
    }

    /** @return list<int> points, those near each other one after the other: asked in this order they are found much faster */
    public function inOrder(): array
    {
        return $this->points;
    }

    /**
     * Distances from a point to the nearest others, nearest first; fewer where there are no more points.
     *
     * @return list<float>
     */
    public function distances(int $of, int $count): array
    {
        [$xs, $ys, $zs] = [$this->x, $this->y, $this->z];
        $all = \count($xs);
        $count = min($count, $all - 1);
        $of = $this->at[$of];
        [$x, $y, $z] = [$xs[$of], $ys[$of], $zs[$of]];
        for ($level = 0; $count > 0; ++$level) {
            [$side, $order, $cubes] = $this->levels[$level] ?? $this->level($level);
            [$a, $b, $c] = [(int) floor($x / $side), (int) floor($y / $side), (int) floor($z / $side)];
            // The nearest so far, squared, nearest first; what is beyond the last of them is passed over.
            $near = array_fill(0, $count, \INF);
            $last = \INF;
            $seen = 0;
            for ($i = $a - 1; $i <= $a + 1; ++$i) {
                for ($j = $b - 1; $j <= $b + 1; ++$j) {
                    for ($k = $c - 1; $k <= $c + 1; ++$k) {
                        // As key() says, without the call.
                        $key = (($k & 0xFFFFF) * self::PRIME + ($j & 0xFFFFF)) * self::PRIME + ($i & 0xFFFFF);
                        $cube = $cubes[$key] ?? null;
                        if (null === $cube) {
                            continue;
                        }
                        $seen += $cube[1];
                        for ($p = $cube[0], $end = $p + $cube[1]; $p < $end; ++$p) {
                            $n = $order[$p];
                            $dx = $xs[$n] - $x;
                            $dy = $ys[$n] - $y;
                            $dz = $zs[$n] - $z;
                            $d = $dx * $dx + $dy * $dy + $dz * $dz;
                            if ($d < $last && $n !== $of) {
                                for ($m = $count - 1; $m > 0 && $near[$m - 1] > $d; --$m) {
                                    $near[$m] = $near[$m - 1];
                                }
                                $near[$m] = $d;
                                $last = $near[$count - 1];
                            }
                        }
                    }
                }
            }
            // The cubes about it reach at least to the nearest face of those 27.
            $sure = min(
                $x - ($a - 1) * $side, ($a + 2) * $side - $x, $y - ($b - 1) * $side, ($b + 2) * $side - $y, $z - ($c - 1) * $side,
                ($c + 2) * $side - $z,
            );
            if ($last <= $sure * $sure || $seen >= $all) {
                return array_values(array_map(sqrt(...), $near));
            }
        }

        return [];
    }

    /**
     * The point nearest to any place, no farther than a distance; null where there is none.
     */
    public function nearest(float $x, float $y, float $z, float $within): ?int
    {
        [$xs, $ys, $zs] = [$this->x, $this->y, $this->z];
        $last = $within * $within;
        $found = null;
        for ($level = 0, $all = \count($xs); $all > 0; ++$level) {
            [$side, $order, $cubes] = $this->levels[$level] ?? $this->level($level);
            [$a, $b, $c] = [(int) floor($x / $side), (int) floor($y / $side), (int) floor($z / $side)];
            for ($i = $a - 1; $i <= $a + 1; ++$i) {
                for ($j = $b - 1; $j <= $b + 1; ++$j) {
                    for ($k = $c - 1; $k <= $c + 1; ++$k) {
                        $cube = $cubes[(($k & 0xFFFFF) * self::PRIME + ($j & 0xFFFFF)) * self::PRIME + ($i & 0xFFFFF)] ?? null;
                        if (null === $cube) {
                            continue;
                        }
                        for ($p = $cube[0], $end = $p + $cube[1]; $p < $end; ++$p) {
                            $n = $order[$p];
                            $dx = $xs[$n] - $x;
                            $dy = $ys[$n] - $y;
                            $dz = $zs[$n] - $z;
                            $d = $dx * $dx + $dy * $dy + $dz * $dz;
                            if ($d <= $last) {
                                $last = $d;
                                $found = $n;
                            }
                        }
                    }
                }
            }
            $sure = min(
                $x - ($a - 1) * $side, ($a + 2) * $side - $x, $y - ($b - 1) * $side, ($b + 2) * $side - $y, $z - ($c - 1) * $side,
                ($c + 2) * $side - $z,
            );
            if ($last <= $sure * $sure) {
                break;
            }
        }

        return null === $found ? null : $this->points[$found];
    }

    /**
     * All points within a distance of a place.
     *
     * @return list<int>
     */
    public function within(float $x, float $y, float $z, float $radius): array
    {
        [$xs, $ys, $zs] = [$this->x, $this->y, $this->z];
        if ([] === $xs) {
            return [];
        }
        // Cubes no smaller than the radius: those about the place's own hold everything, and little else.
        for ($level = 0;; ++$level) {
            [$side, $order, $cubes] = $this->levels[$level] ?? $this->level($level);
            if ($side >= $radius) {
                break;
            }
        }
        [$a, $b, $c] = [(int) floor($x / $side), (int) floor($y / $side), (int) floor($z / $side)];
        $most = $radius * $radius;
        $found = [];
        for ($i = $a - 1; $i <= $a + 1; ++$i) {
            for ($j = $b - 1; $j <= $b + 1; ++$j) {
                for ($k = $c - 1; $k <= $c + 1; ++$k) {
                    $cube = $cubes[(($k & 0xFFFFF) * self::PRIME + ($j & 0xFFFFF)) * self::PRIME + ($i & 0xFFFFF)] ?? null;
                    if (null === $cube) {
                        continue;
                    }
                    for ($p = $cube[0], $end = $p + $cube[1]; $p < $end; ++$p) {
                        $n = $order[$p];
                        if (($xs[$n] - $x) ** 2 + ($ys[$n] - $y) ** 2 + ($zs[$n] - $z) ** 2 <= $most) {
                            $found[] = $this->points[$n];
                        }
                    }
                }
            }
        }

        return $found;
    }

    /** @return array{float, list<int>, array<int, array{int, int}>} */
    private function level(int $level): array
    {
        $side = 0 === $level ? $this->first() : 2.0 * $this->levels[$level - 1][0];
        [$y, $z] = [$this->y, $this->z];
        $keys = $count = [];
        foreach ($this->x as $i => $e) {
            $key = self::key((int) floor($e / $side), (int) floor($y[$i] / $side), (int) floor($z[$i] / $side));
            $keys[] = $key;
            $count[$key] = ($count[$key] ?? 0) + 1;
        }
        // Sorted by counting: where each cube begins, then every point to its place.
        $cubes = $next = [];
        $begin = 0;
        foreach ($count as $key => $n) {
            $cubes[$key] = [$begin, $n];
            $next[$key] = $begin;
            $begin += $n;
        }
        $order = $keys;
        foreach ($keys as $i => $key) {
            $order[$next[$key]++] = $i;
        }

        return $this->levels[$level] = [$side, $order, $cubes];
    }

    /** A side with about two points to each cube that holds any: by the share of cubes that are occupied, tried on a part of the points. */
    private function first(): float
    {
        [$x, $y, $z] = [$this->x, $this->y, $this->z];
        $wide = max(max($x) - min($x), max($y) - min($y), max($z) - min($z), 1e-3);
        $step = max(1, intdiv(\count($x), 50_000));
        $side = $wide / 1_024.0;
        for ($try = 0; $try < 24; ++$try) {
            $seen = [];
            $count = 0;
            for ($i = 0, $n = \count($x); $i < $n; $i += $step) {
                $seen[self::key((int) floor($x[$i] / $side), (int) floor($y[$i] / $side), (int) floor($z[$i] / $side))] = true;
                ++$count;
            }
            $of = $step * $count / \count($seen);
            if ($of < 1.5 * $step || $of > 6.0 * $step) {
                $side *= $of < 1.5 * $step ? 1.6 : 0.625;
                continue;
            }
            break;
        }

        // A part of the points fills a surface thinner than all of them do; where more neighbours are asked for, they lie further off.
        return $side / sqrt($step) * ($this->wanted > 1 ? 1.6 : 1.0);
    }

    /** One number a cube; what is a million cubes apart shares one, which costs time and nothing else. */
    private static function key(int $i, int $j, int $k): int
    {
        return (($k & 0xFFFFF) * self::PRIME + ($j & 0xFFFFF)) * self::PRIME + ($i & 0xFFFFF);
    }
}
