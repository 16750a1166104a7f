<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\LinearAlgebra\Dense;

/** Ambiguities of a float solution as integers: all of them, or those that are known best, where the ratio test holds. */
final class IntegerFix
{
    /** The second best integers must miss by so much more than the best. */
    private const RATIO = 3.0;

    /** A long session has hundreds; so many are searched at a time. */
    private const AT_ONCE = 64;

    /** Fewer ambiguities than this are not fixed. */
    private const LEAST = 4;

    /** Greatest ratio met; null where no search came to an end. */
    public ?float $ratio = null;

    /** @var array<int, float> integers by arc; empty when none is sure */
    public array $integers = [];

    /** @var list<float> unknowns of the float solution when those are held */
    public array $x;

    /** @var list<list<float>> their covariance then */
    public array $q;

    public function __construct(private readonly FloatSolution $float)
    {
        $this->x = $float->x;
        $this->q = $float->q;
        $left = array_keys($float->unknown);
        while (\count($left) >= self::LEAST) {
            // The best known first; those held already have made the others better known.
            usort($left, fn (int $a, int $b): int => $this->variance($a) <=> $this->variance($b));
            $held = $this->fixBest(\array_slice($left, 0, self::AT_ONCE));
            $left = array_values(array_diff($left, $held));
            if (\count($held) < self::AT_ONCE) {
                break; // what is left is not sure
            }
        }
    }

    private function variance(int $arc): float
    {
        $u = $this->float->unknown[$arc];

        return $this->q[$u][$u];
    }

    /**
     * Holds as many as are sure, leaving out the worst known one by one.
     *
     * @param list<int> $order the best known first
     *
     * @return list<int> those held
     */
    private function fixBest(array $order): array
    {
        $float = $this->float;
        while (\count($order) >= self::LEAST) {
            $a = $q = [];
            foreach ($order as $one) {
                $u = $float->unknown[$one];
                $a[] = $this->x[$u];
                $q[] = array_map(fn (int $other): float => $this->q[$u][$float->unknown[$other]], $order);
            }
            $found = Lambda::fix($a, $q);
            if (null !== $found) {
                $ratio = $found[2] / max($found[1], 1e-9);
                if ($ratio >= self::RATIO) {
                    // What a session is worth is what the weakest part of its integers is worth.
                    $this->ratio = [] === $this->integers ? max($this->ratio ?? 0.0, $ratio) : min($this->ratio ?? $ratio, $ratio);
                    $this->hold($float, $order, $a, $found[0], $q);

                    return $order;
                }
                $this->ratio = [] === $this->integers ? max($this->ratio ?? 0.0, $ratio) : $this->ratio;
            }
            array_pop($order); // the worst known waits
        }

        return [];
    }

    public function isFixed(): bool
    {
        return [] !== $this->integers;
    }

    /** How many satellites of an epoch have a first-band ambiguity that is an integer, held or found. */
    public function sureSatellites(Session $session, Arcs $arcs, int $k): int
    {
        if (!$this->isFixed()) {
            return 0;
        }
        $sure = 0;
        for ($i = $session->epochStart[$k]; $i < $session->epochStart[$k + 1]; ++$i) {
            $a = $arcs->of[0][$i];
            $sure += $a >= 0 && (isset($this->integers[$a]) || isset($this->float->held[$a])) ? 1 : 0;
        }

        return $sure;
    }

    /** Share of the epochs whose place rests on integers: what the rest says about it is not known to agree. */
    public function coverage(Session $session, Arcs $arcs): float
    {
        $sure = 0;
        foreach ($session->times as $k => $unused) {
            $sure += $this->sureSatellites($session, $arcs, $k) >= self::LEAST ? 1 : 0;
        }

        return $sure / max(1, \count($session->times));
    }

    /**
     * What the other unknowns come to when these are integers.
     *
     * @param list<int>         $order
     * @param list<float>       $a
     * @param list<float>       $integers
     * @param list<list<float>> $q
     */
    private function hold(FloatSolution $float, array $order, array $a, array $integers, array $q): void
    {
        $inverse = Dense::inverse($q);
        if (null === $inverse) {
            return;
        }
        $place = array_map(static fn (int $arc): int => $float->unknown[$arc], $order);
        $before = $this->q;
        $count = \count($float->x);
        $gain = [];
        for ($i = 0; $i < $count; ++$i) {
            foreach ($order as $j => $unused) {
                $sum = 0.0;
                foreach ($place as $k => $u) {
                    $sum += $before[$i][$u] * $inverse[$k][$j];
                }
                $gain[$i][$j] = $sum;
                $this->x[$i] -= $sum * ($a[$j] - $integers[$j]);
            }
            for ($l = 0; $l < $count; ++$l) {
                foreach ($place as $j => $u) {
                    $this->q[$i][$l] -= $gain[$i][$j] * $before[$u][$l];
                }
            }
        }
        $this->integers += array_combine($order, $integers);
    }
}
