<?php

declare(strict_types=1);

namespace Mensura\Cloud;

/** How many points of which class, where, how dense. Coordinates in units of the cloud; density and spacing in metres. */
final class CloudFigures
{
    /** Points whose nearest neighbour is looked for; of more, as many are taken evenly. */
    private const ASKED = 100_000;
    /** Points held for it; of larger clouds whole columns of some metres are taken. */
    private const HELD = 3_000_000;
    /** Metres. */
    private const COLUMN = 16.0;

    private const PRIME = 19_999_999;

    public int $count = 0;

    /** @var array<int, int> */
    private array $classes = [];

    /** @var list<float> */
    private array $low = [\INF, \INF, \INF];

    /** @var list<float> */
    private array $high = [-\INF, -\INF, -\INF];

    /** @var array<int, true> occupied cells of a metre */
    private array $cells = [];

    private PointBlock $held;

    /** Of how many columns one is held. */
    private int $share = 1;

    /** @param float $metre metres of a unit of the coordinates */
    public function __construct(private readonly float $metre)
    {
        $this->held = new PointBlock();
    }

    public function take(PointBlock $points): void
    {
        if (0 === $points->count()) {
            return;
        }
        $this->count += $points->count();
        foreach (array_count_values($points->classes) as $class => $n) {
            $this->classes[$class] = ($this->classes[$class] ?? 0) + $n;
        }
        foreach ([$points->x, $points->y, $points->z] as $k => $axis) {
            $this->low[$k] = min($this->low[$k], min($axis));
            $this->high[$k] = max($this->high[$k], max($axis));
        }
        $metre = $this->metre;
        $cells = &$this->cells;
        foreach ($points->x as $i => $x) {
            $cells[self::cell($x * $metre, $points->y[$i] * $metre)] = true;
        }
        $this->hold($points);
    }

    /** One number a square metre, of coordinates within eight thousand kilometres; they differ in the low bits a hash looks at. */
    public static function cell(float $x, float $y): int
    {
        return (int) floor($y) * self::PRIME + (int) floor($x);
    }

    private function hold(PointBlock $points): void
    {
        foreach ($points->x as $i => $x) {
            if (1 === $this->share || $this->isHeld($x, $points->y[$i])) {
                $this->held->x[] = $x;
                $this->held->y[] = $points->y[$i];
                $this->held->z[] = $points->z[$i];
            }
        }
        while (\count($this->held->x) > self::HELD) {
            $this->share *= 2;
            $fewer = new PointBlock();
            foreach ($this->held->x as $i => $x) {
                if ($this->isHeld($x, $this->held->y[$i])) {
                    $fewer->x[] = $x;
                    $fewer->y[] = $this->held->y[$i];
                    $fewer->z[] = $this->held->z[$i];
                }
            }
            $this->held = $fewer;
        }
    }

    /** Columns are taken as a hash of their place says, which is the same every time. */
    private function isHeld(float $x, float $y): bool
    {
        $column = ((int) floor($x * $this->metre / self::COLUMN)).' '.((int) floor($y * $this->metre / self::COLUMN));

        return 0 === crc32($column) % $this->share;
    }

    /** @return array<int, int> points by class */
    public function classes(): array
    {
        ksort($this->classes);

        return $this->classes;
    }

    /** @return ?list<float> west, south, lowest, east, north, highest; null where there are no points */
    public function extent(): ?array
    {
        return 0 === $this->count ? null : [...$this->low, ...$this->high];
    }

    /** Points a square metre of the cells of a metre that hold any; null where there are no points. */
    public function density(): ?float
    {
        return 0 === $this->count ? null : $this->count / \count($this->cells);
    }

    /** Median distance to the nearest other point, metres; null where there are fewer than two. */
    public function spacing(): ?float
    {
        $n = \count($this->held->x);
        if ($n < 2) {
            return null;
        }
        $neighbours = new Neighbours($this->held->x, $this->held->y, $this->held->z);
        $nearest = [];
        for ($i = 0, $step = max(1, intdiv($n, self::ASKED)); $i < $n; $i += $step) {
            $d = $neighbours->distances($i, 1)[0] ?? \INF;
            if (1 === $this->share || $d <= $this->toEdge($this->held->x[$i], $this->held->y[$i])) {
                $nearest[] = $d;
            }
        }
        sort($nearest);
        $m = \count($nearest);

        return 0 === $m ? null : $this->metre * (0 === $m % 2 ? 0.5 * ($nearest[$m / 2 - 1] + $nearest[$m / 2]) : $nearest[intdiv($m, 2)]);
    }

    /** Distance to the edge of the column a place is in, beyond which points may be missing. */
    private function toEdge(float $x, float $y): float
    {
        $side = self::COLUMN / $this->metre;
        $u = $x - $side * floor($x / $side);
        $v = $y - $side * floor($y / $side);

        return min($u, $side - $u, $v, $side - $v);
    }
}
