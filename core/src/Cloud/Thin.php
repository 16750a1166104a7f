<?php

declare(strict_types=1);

namespace Mensura\Cloud;

/** One point a cube: the one nearest its middle, the first of those that are as near. Cubes are counted from coordinate 0. */
final class Thin
{
    public readonly PointBlock $kept;

    /** @var array<string, int> place among those kept, by cube */
    private array $of = [];

    /** @var list<float> squared distance from the middle */
    private array $away = [];

    /** @param float $side of a cube, in units of the coordinates */
    public function __construct(private readonly float $side)
    {
        $this->kept = new PointBlock();
    }

    public function take(PointBlock $points): void
    {
        $side = $this->side;
        $kept = $this->kept;
        $hasRecords = [] !== $points->records;
        $hasLooks = [] !== $points->looks;
        foreach ($points->x as $i => $x) {
            [$y, $z] = [$points->y[$i], $points->z[$i]];
            [$a, $b, $c] = [floor($x / $side), floor($y / $side), floor($z / $side)];
            [$dx, $dy, $dz] = [$x - ($a + 0.5) * $side, $y - ($b + 0.5) * $side, $z - ($c + 0.5) * $side];
            $away = $dx * $dx + $dy * $dy + $dz * $dz;
            $key = pack('d3', $a, $b, $c);
            $at = $this->of[$key] ?? null;
            if (null === $at) {
                $at = $this->of[$key] = \count($kept->x);
            } elseif ($away >= $this->away[$at]) {
                continue;
            }
            $this->away[$at] = $away;
            $kept->x[$at] = $x;
            $kept->y[$at] = $y;
            $kept->z[$at] = $z;
            $kept->classes[$at] = $points->classes[$i];
            if ($hasRecords) {
                $kept->records[$at] = $points->records[$i];
            }
            if ($hasLooks) {
                $kept->looks[$at] = $points->looks[$i];
            }
        }
    }
}
