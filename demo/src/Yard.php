<?php

declare(strict_types=1);

namespace Demo;

use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * The yard of the site office, scanned the day after the second survey of the heap: ground, an office container, a wall, four trees,
 * and some points of passing dust. LAS 1.2, point format 2 (ASPRS LAS specification), with intensity and colours. Simulated.
 */
final class Yard
{
    public const SCAN = 'yard-scan.las';
    public const EAST = 493490.0;
    public const NORTH = 6028170.0;

    private const WIDE = 50.0;
    private const DEEP = 36.0;
    private const POINTS = 42_000;
    private const LEAVES = 2_600;
    private const DUST = 60;
    private const NOISE = 0.008;
    /** West, south, east, north from the corner, and how high. */
    private const BOXES = ['office' => [12.0, 20.0, 24.0, 25.0, 2.9], 'wall' => [30.0, 6.0, 46.0, 6.3, 1.6]];
    private const TREES = [[8.0, 8.0, 2.6, 6.5], [38.0, 28.0, 3.1, 7.8], [44.0, 22.0, 2.2, 5.2], [5.0, 30.0, 2.4, 6.0]];
    /** Red, green, blue, and intensity. */
    private const LOOKS = [
        'ground' => [150, 128, 96, 210], 'road' => [112, 112, 110, 120], 'office' => [196, 198, 190, 480], 'wall' => [168, 152, 140, 330],
        'tree' => [72, 110, 58, 90], 'dust' => [200, 190, 170, 30],
    ];

    private readonly Randomizer $random;
    /** @var array<int, float> */
    private array $low = [\INF, \INF, \INF];
    /** @var array<int, float> */
    private array $high = [-\INF, -\INF, -\INF];

    public function __construct()
    {
        $this->random = new Randomizer(new Xoshiro256StarStar(TruthModel::SEED + 3));
    }

    public function scan(): string
    {
        $records = '';
        for ($k = 0; $k < self::POINTS; ++$k) {
            [$x, $y] = [$this->between(0.0, self::WIDE), $this->between(0.0, self::DEEP)];
            [$what, $up] = $this->hit($x, $y);
            $records .= $this->record($x, $y, $up + $this->between(-1.7, 1.7) * self::NOISE, $what);
        }
        foreach (self::BOXES as $what => [$w, $s, $e, $n, $top]) {
            for ($k = 0, $count = (int) (60.0 * (2.0 * ($e - $w) + 2.0 * ($n - $s)) * $top / 2.0); $k < $count; ++$k) {
                $at = $this->between(0.0, 2.0 * ($e - $w) + 2.0 * ($n - $s));
                [$x, $y] = match (true) {
                    $at < $e - $w => [$w + $at, $s], $at < 2.0 * ($e - $w) => [$e - ($at - ($e - $w)), $n],
                    $at < 2.0 * ($e - $w) + $n - $s => [$w, $s + $at - 2.0 * ($e - $w)],
                    default => [$e, $n - ($at - 2.0 * ($e - $w) - ($n - $s))],
                };
                $records .= $this->record($x, $y, $this->between(0.0, $top), $what);
            }
        }
        foreach (self::TREES as [$x, $y, $radius, $top]) {
            for ($k = 0; $k < self::LEAVES; ++$k) {
                $away = $radius * $this->between(0.4, 1.0) ** (1.0 / 3.0);
                [$turn, $rise] = [$this->between(0.0, 2.0 * \M_PI), asin($this->between(-1.0, 1.0))];
                $flat = $away * cos($rise);
                $records .= $this->record($x + $flat * cos($turn), $y + $flat * sin($turn), $top - $radius + $away * sin($rise), 'tree');
            }
        }
        for ($k = 0; $k < self::DUST; ++$k) {
            $records .= $this->record($this->between(0.0, self::WIDE), $this->between(0.0, self::DEEP), $this->between(9.0, 16.0), 'dust');
        }
        $count = intdiv(\strlen($records), 26);
        $head = 'LASF'.str_repeat("\0", 20)."\1\2".str_pad('mensura demo', 32, "\0").str_pad('mensura demo', 32, "\0");
        $head .= pack('v3V2CvV', 158, 2031, 227, 227, 0, 2, 26, $count).pack('V5', $count, 0, 0, 0, 0).pack('e3', 0.001, 0.001, 0.001);
        $head .= pack('e3', self::EAST, self::NORTH, 0.0);
        [$low, $high] = [$this->low, $this->high];
        $box = [self::EAST + $high[0], self::EAST + $low[0], self::NORTH + $high[1], self::NORTH + $low[1], $high[2], $low[2]];

        return $head.pack('e6', ...$box).$records;
    }

    /** @return array{string, float} what stands there, and how far above the ground */
    private function hit(float $x, float $y): array
    {
        foreach (self::BOXES as $what => [$w, $s, $e, $n, $top]) {
            if ($x >= $w && $x <= $e && $y >= $s && $y <= $n) {
                return [$what, $top];
            }
        }

        return [abs($y - 14.0 - 2.0 * sin($x / 9.0)) < 2.6 ? 'road' : 'ground', 0.0];
    }

    private function record(float $x, float $y, float $up, string $what): string
    {
        [$red, $green, $blue, $intensity] = self::LOOKS[$what];
        $h = TruthModel::ground(self::EAST + $x, self::NORTH + $y) + $up;
        foreach ([$x, $y, $h] as $k => $v) {
            $this->low[$k] = min($this->low[$k], round($v, 3));
            $this->high[$k] = max($this->high[$k], round($v, 3));
        }
        $shade = $this->between(0.85, 1.15);
        $sixteen = static fn (int $c): int => (int) min(65_535.0, 257.0 * $c * $shade);

        return pack(
            'V3vC4vv3', (int) round(1000.0 * $x), (int) round(1000.0 * $y), (int) round(1000.0 * $h),
            (int) ($intensity * 64 * $shade), 9, 0, 0, 0, 1, $sixteen($red), $sixteen($green), $sixteen($blue),
        );
    }

    private function between(float $least, float $most): float
    {
        return $least + ($most - $least) * $this->random->getInt(0, 1 << 30) / (1 << 30);
    }
}
