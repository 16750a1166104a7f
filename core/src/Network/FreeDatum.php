<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\LinearAlgebra\BlockCholesky;
use Mensura\LinearAlgebra\Dense;

/**
 * Inner constraints as an S-transformation of a minimally constrained solution.
 *
 * With G the directions in which the network is free and C their part at the stations with given coordinates,
 * S = I - G (C'G)^-1 C'; x = S x0 and Q = S Q0 S' (Baarda 1973, S-transformations and criterion matrices; Teunissen 1985).
 */
final class FreeDatum
{
    /** @var list<list<float>> (C'G)^-1 */
    private array $m;

    /** @var list<list<float>> per mode over unknowns: Q0 C M' */
    private array $u = [];

    /** @var list<list<float>> */
    private array $t = [];

    /**
     * @param list<list<float>>          $g per mode, over the unknowns, at the present coordinates
     * @param list<array<int, float>>    $c per mode, sparse over the unknowns, at the given coordinates
     */
    public function __construct(private readonly array $g, private readonly array $c)
    {
        $cg = [];
        foreach ($c as $k => $column) {
            foreach ($g as $l => $direction) {
                $sum = 0.0;
                foreach ($column as $i => $value) {
                    $sum += $value * $direction[$i];
                }
                $cg[$k][$l] = $sum;
            }
        }
        $inverse = Dense::inverse(array_values(array_map(array_values(...), $cg)));
        if (null === $inverse) {
            throw new \LogicException('The datum of a free network needs given coordinates at enough stations.');
        }
        $this->m = $inverse;
    }

    /**
     * @param list<float> $shift  minimally constrained shifts
     * @param list<float> $moved  what the unknowns have already moved from the given coordinates
     *
     * @return list<float>
     */
    public function transform(array $shift, array $moved): array
    {
        $misfit = [];
        foreach ($this->c as $k => $column) {
            $sum = 0.0;
            foreach ($column as $i => $value) {
                $sum += $value * ($shift[$i] + $moved[$i]);
            }
            $misfit[$k] = $sum;
        }
        foreach ($this->g as $l => $direction) {
            $amount = 0.0;
            foreach ($misfit as $k => $value) {
                $amount += $this->m[$l][$k] * $value;
            }
            foreach ($direction as $i => $value) {
                $shift[$i] -= $value * $amount;
            }
        }

        return $shift;
    }

    public function prepareCovariance(BlockCholesky $cholesky): void
    {
        $qc = [];
        foreach ($this->c as $column) {
            $rhs = array_fill(0, $cholesky->size, 0.0);
            foreach ($column as $i => $value) {
                $rhs[$i] = $value;
            }
            $qc[] = $cholesky->solve($rhs);
        }
        $modes = \count($this->g);
        $this->u = [];
        for ($k = 0; $k < $modes; ++$k) {
            $u = array_fill(0, $cholesky->size, 0.0);
            for ($l = 0; $l < $modes; ++$l) {
                $w = $this->m[$k][$l];
                foreach ($qc[$l] as $i => $value) {
                    $u[$i] += $w * $value;
                }
            }
            $this->u[] = $u;
        }
        $this->t = [];
        for ($k = 0; $k < $modes; ++$k) {
            for ($l = 0; $l < $modes; ++$l) {
                $sum = 0.0;
                for ($j = 0; $j < $modes; ++$j) {
                    $dot = 0.0;
                    foreach ($this->c[$j] as $i => $value) {
                        $dot += $value * $this->u[$l][$i];
                    }
                    $sum += $this->m[$k][$j] * $dot;
                }
                $this->t[$k][$l] = $sum;
            }
        }
    }

    /**
     * @param list<float> $q covariances with held unknowns, in the layout of the normal matrix
     *
     * @return list<float> the same in this datum
     */
    public function covariances(array $q, NetworkStructure $structure): array
    {
        $done = [];
        foreach ($structure->placeStart as $p => $at) {
            for ($a = $structure->patternStart[$p], $end = $structure->patternStart[$p + 1]; $a < $end; ++$a) {
                for ($b = $a; $b < $end; ++$b) {
                    $place = $structure->place[$at++];
                    if (!isset($done[$place])) {
                        $done[$place] = true;
                        $q[$place] += $this->change($structure->unknown[$a], $structure->unknown[$b]);
                    }
                }
            }
        }

        return $q;
    }

    private function change(int $i, int $j): float
    {
        $value = 0.0;
        foreach ($this->g as $k => $g) {
            $value -= $g[$i] * $this->u[$k][$j] + $this->u[$k][$i] * $g[$j];
            foreach ($this->g as $l => $other) {
                $value += $g[$i] * $this->t[$k][$l] * $other[$j];
            }
        }

        return $value;
    }
}
