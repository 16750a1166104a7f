<?php

declare(strict_types=1);

namespace Mensura\Tests\Cloud;

use Random\Engine\Mt19937;
use Random\Randomizer;

/** A made-up scene as an aeroplane scans it: ground, buildings flat and gabled, trees, bushes, echoes that went astray. Metres. */
final class CloudScene
{
    private readonly Randomizer $random;

    /** @var list<float> */
    public array $x = [];
    /** @var list<float> */
    public array $y = [];
    /** @var list<float> */
    public array $z = [];
    /** @var list<bool> whether it is ground */
    public array $ground = [];

    public function __construct(
        int $seed, private readonly float $size, float $density, private readonly float $relief, private readonly float $wave,
        private readonly float $tilt, int $buildings, int $trees, int $bushes, float $noise = 0.03, int $astray = 20,
    ) {
        $this->random = new Randomizer(new Mt19937($seed));
        $blocks = $crowns = [];
        for ($i = 0; $i < $buildings; ++$i) {
            [$w, $l] = [$this->from(8, 30), $this->from(8, 38)];
            [$e, $n] = [$this->from(5, $size - $w - 5), $this->from(5, $size - $l - 5)];
            $corners = [$this->height($e, $n), $this->height($e + $w, $n), $this->height($e, $n + $l), $this->height($e + $w, $n + $l)];
            $blocks[] = [$e, $n, $w, $l, max($corners) + $this->from(3, 12), $this->from(0, 1) < 0.5];
        }
        foreach ([[$trees, 1.5, 4.5, 4.0, 18.0], [$bushes, 0.5, 2.0, 0.5, 2.0]] as [$many, $thin, $thick, $low, $high]) {
            for ($i = 0; $i < $many; ++$i) {
                $crowns[] = [$this->from(0, $size), $this->from(0, $size), $this->from($thin, $thick), $this->from($low, $high)];
            }
        }
        $near = [];
        foreach ($crowns as $k => [$e, $n, $r]) {
            for ($a = (int) floor(($e - $r) / 5); $a <= (int) floor(($e + $r) / 5); ++$a) {
                for ($b = (int) floor(($n - $r) / 5); $b <= (int) floor(($n + $r) / 5); ++$b) {
                    $near["$a $b"][] = $k;
                }
            }
        }
        for ($i = 0, $count = (int) ($size * $size * $density); $i < $count; ++$i) {
            [$e, $n] = [$this->from(0, $size), $this->from(0, $size)];
            [$h, $isGround] = [$this->height($e, $n), true];
            foreach ($blocks as [$be, $bn, $w, $l, $top, $isGabled]) {
                if ($e > $be && $e < $be + $w && $n > $bn && $n < $bn + $l) {
                    [$h, $isGround] = [$top + ($isGabled ? 0.6 * min($e - $be, $be + $w - $e) : 0.0), false];
                    break;
                }
            }
            foreach ($isGround ? $near[((int) floor($e / 5)).' '.((int) floor($n / 5))] ?? [] : [] as $k) {
                [$ce, $cn, $r, $high] = $crowns[$k];
                $away = hypot($e - $ce, $n - $cn) / $r;
                if ($away < 1.0 && $this->from(0, 1) < 0.65) {
                    $h += $high * (1.0 - 0.5 * $away * $away) * $this->from(0.4, 1);
                    $isGround = false;
                    break;
                }
            }
            $this->x[] = round(500_000.0 + $e, 3);
            $this->y[] = round(6_000_000.0 + $n, 3);
            $this->z[] = round($h + $noise * $this->normal(), 3);
            $this->ground[] = $isGround;
        }
        for ($i = 0; $i < $astray; ++$i) {
            $k = $this->random->getInt(0, $count - 1);
            $this->z[$k] += $this->from(0, 1) < 0.5 ? -$this->from(3, 13) : $this->from(20, 40);
            $this->ground[$k] = false;
        }
    }

    /** @param array<int, true> $found */
    public function totalError(array $found): float
    {
        $wrong = 0;
        foreach ($this->ground as $i => $is) {
            $wrong += $is === isset($found[$i]) ? 0 : 1;
        }

        return $wrong / \count($this->ground);
    }

    private function height(float $e, float $n): float
    {
        return 100.0 + $this->tilt * $e + $this->relief * sin($e / $this->wave) * cos($n / (1.3 * $this->wave))
            + 0.3 * $this->relief * sin($e / (0.37 * $this->wave) + $n / (0.41 * $this->wave));
    }

    private function from(float $low, float $high): float
    {
        return $low + ($high - $low) * $this->random->getInt(0, 1_000_000_000) / 1e9;
    }

    private function normal(): float
    {
        return sqrt(-2.0 * log(max(1e-12, $this->from(0, 1)))) * cos(2.0 * \M_PI * $this->from(0, 1));
    }
}
