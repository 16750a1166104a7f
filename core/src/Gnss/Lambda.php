<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * Integer least squares for ambiguities: decorrelation and search, the two best vectors (Teunissen 1995; De Jonge and Tiberius
 * 1996; the search in shrinking steps after Chang, Yang and Zhou 2005).
 */
final class Lambda
{
    /** A search that takes more steps than this has ambiguities too poor to fix. */
    private const MOST_STEPS = 200000;

    /** @var list<list<float>> unit lower triangle of the decorrelated matrix */
    private array $l = [];

    /** @var list<float> */
    private array $d = [];

    /** @var list<list<float>> integer transformation */
    private array $z;

    /** @param list<list<float>> $q covariance of the float ambiguities, cycles squared, positive definite */
    private function __construct(array $q)
    {
        $n = \count($q);
        $this->z = [];
        for ($i = 0; $i < $n; ++$i) {
            $this->z[] = array_fill(0, $n, 0.0);
            $this->z[$i][$i] = 1.0;
        }
        $this->factor($q);
        $this->reduce();
    }

    /**
     * @param list<float>       $a float ambiguities, cycles
     * @param list<list<float>> $q their covariance
     *
     * @return ?array{list<float>, float, float} best integers, squared norms of the best and the second best; null when they
     *     cannot be found
     */
    public static function fix(array $a, array $q): ?array
    {
        if ([] === $a) {
            return null;
        }
        $self = new self($q);
        foreach ($self->d as $d) {
            if (!($d > 0.0)) {
                return null;
            }
        }

        return $self->search($a);
    }

    /** @param list<list<float>> $q */
    private function factor(array $q): void
    {
        $n = \count($q);
        $l = array_fill(0, $n, array_fill(0, $n, 0.0));
        $d = array_fill(0, $n, 0.0);
        for ($i = $n - 1; $i >= 0; --$i) {
            $d[$i] = $q[$i][$i];
            if (!($d[$i] > 0.0)) {
                break;
            }
            for ($j = 0; $j <= $i; ++$j) {
                $l[$i][$j] = $q[$i][$j] / $d[$i];
            }
            for ($j = 0; $j < $i; ++$j) {
                for ($k = 0; $k <= $j; ++$k) {
                    $q[$j][$k] -= $l[$i][$k] * $l[$i][$j] * $d[$i];
                }
            }
        }
        $this->l = $l;
        $this->d = $d;
    }

    private function reduce(): void
    {
        $n = \count($this->d);
        $j = $k = $n - 2;
        while ($j >= 0) {
            if ($j <= $k) {
                for ($i = $j + 1; $i < $n; ++$i) {
                    $this->roundOff($i, $j);
                }
            }
            $delta = $this->d[$j] + $this->l[$j + 1][$j] ** 2 * $this->d[$j + 1];
            if ($delta + 1e-6 * $this->d[$j + 1] < $this->d[$j + 1]) {
                $this->exchange($j, $delta);
                $k = $j;
                $j = $n - 2;
            } else {
                --$j;
            }
        }
    }

    private function roundOff(int $i, int $j): void
    {
        $mu = round($this->l[$i][$j]);
        if (0.0 === $mu) {
            return;
        }
        $n = \count($this->d);
        for ($k = $i; $k < $n; ++$k) {
            $this->l[$k][$j] -= $mu * $this->l[$k][$i];
        }
        for ($k = 0; $k < $n; ++$k) {
            $this->z[$k][$j] -= $mu * $this->z[$k][$i];
        }
    }

    private function exchange(int $j, float $delta): void
    {
        $n = \count($this->d);
        $eta = $this->d[$j] / $delta;
        $lambda = $this->d[$j + 1] * $this->l[$j + 1][$j] / $delta;
        $this->d[$j] = $eta * $this->d[$j + 1];
        $this->d[$j + 1] = $delta;
        for ($k = 0; $k < $j; ++$k) {
            $one = $this->l[$j][$k];
            $two = $this->l[$j + 1][$k];
            $this->l[$j][$k] = $two - $this->l[$j + 1][$j] * $one;
            $this->l[$j + 1][$k] = $eta * $one + $lambda * $two;
        }
        $this->l[$j + 1][$j] = $lambda;
        for ($k = $j + 2; $k < $n; ++$k) {
            [$this->l[$k][$j], $this->l[$k][$j + 1]] = [$this->l[$k][$j + 1], $this->l[$k][$j]];
        }
        for ($k = 0; $k < $n; ++$k) {
            [$this->z[$k][$j], $this->z[$k][$j + 1]] = [$this->z[$k][$j + 1], $this->z[$k][$j]];
        }
    }

    /**
     * @param list<float> $a
     *
     * @return ?array{list<float>, float, float}
     */
    private function search(array $a): ?array
    {
        $n = \count($a);
        $zs = [];
        for ($j = 0; $j < $n; ++$j) {
            $sum = 0.0;
            for ($k = 0; $k < $n; ++$k) {
                $sum += $this->z[$k][$j] * $a[$k];
            }
            $zs[] = $sum;
        }
        $found = [];
        $norms = [];
        $limit = \INF;
        $s = array_fill(0, $n, array_fill(0, $n, 0.0));
        $distance = $zb = $z = $step = array_fill(0, $n, 0.0);
        $k = $n - 1;
        $zb[$k] = $zs[$k];
        $z[$k] = round($zb[$k]);
        $y = $zb[$k] - $z[$k];
        $step[$k] = $y <= 0.0 ? -1.0 : 1.0;
        for ($count = 0; $count < self::MOST_STEPS; ++$count) {
            $now = $distance[$k] + $y * $y / $this->d[$k];
            if ($now < $limit) {
                if ($k > 0) {
                    --$k;
                    $distance[$k] = $now;
                    for ($i = 0; $i <= $k; ++$i) {
                        $s[$k][$i] = $s[$k + 1][$i] + ($z[$k + 1] - $zb[$k + 1]) * $this->l[$k + 1][$i];
                    }
                    $zb[$k] = $zs[$k] + $s[$k][$k];
                    $z[$k] = round($zb[$k]);
                    $y = $zb[$k] - $z[$k];
                    $step[$k] = $y <= 0.0 ? -1.0 : 1.0;
                    continue;
                }
                if (2 > \count($found)) {
                    $found[] = $z;
                    $norms[] = $now;
                } else {
                    $worse = $norms[0] > $norms[1] ? 0 : 1;
                    $found[$worse] = $z;
                    $norms[$worse] = $now;
                }
                if (2 === \count($found)) {
                    $limit = max($norms);
                }
            } else {
                if ($k === $n - 1) {
                    break;
                }
                ++$k;
            }
            $z[$k] += $step[$k];
            $y = $zb[$k] - $z[$k];
            $step[$k] = -$step[$k] - ($step[$k] <= 0.0 ? -1.0 : 1.0);
        }
        if (2 > \count($found) || $count >= self::MOST_STEPS) {
            return null;
        }
        $best = $norms[0] <= $norms[1] ? 0 : 1;

        return [$this->back($found[$best]), $norms[$best], $norms[1 - $best]];
    }

    /**
     * From the decorrelated integers to those of the ambiguities: solves the transposed transformation.
     *
     * @param list<float> $z
     *
     * @return list<float>
     */
    private function back(array $z): array
    {
        $n = \count($z);
        $m = [];
        for ($i = 0; $i < $n; ++$i) {
            $row = [];
            for ($j = 0; $j < $n; ++$j) {
                $row[] = $this->z[$j][$i];
            }
            $row[] = $z[$i];
            $m[] = $row;
        }
        for ($c = 0; $c < $n; ++$c) {
            $pivot = $c;
            for ($i = $c + 1; $i < $n; ++$i) {
                $pivot = abs($m[$i][$c]) > abs($m[$pivot][$c]) ? $i : $pivot;
            }
            [$m[$c], $m[$pivot]] = [$m[$pivot], $m[$c]];
            for ($i = 0; $i < $n; ++$i) {
                $f = $i === $c ? 0.0 : $m[$i][$c] / $m[$c][$c];
                for ($j = $c; 0.0 !== $f && $j <= $n; ++$j) {
                    $m[$i][$j] -= $f * $m[$c][$j];
                }
            }
        }

        return array_map(static fn (array $row, int $i): float => round($row[$n] / $row[$i]), $m, array_keys($m));
    }
}
