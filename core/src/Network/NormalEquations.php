<?php

declare(strict_types=1);

namespace Mensura\Network;

/** Puts the observation equations together to normal equations: A'PA in the layout of the factorization, and A'Pw. */
final class NormalEquations
{
    /** @var list<float> */
    public array $normal = [];

    /** @var list<float> */
    public array $rhs = [];

    public function __construct(private readonly NetworkStructure $structure)
    {
    }

    /**
     * @param list<float>                             $scale       of the weights, per observation; an empty list leaves them as they are
     * @param iterable<array{int, float, float}>      $coordinates weighted ones: unknown, standard deviation, given less present
     */
    public function assemble(Linearization $equations, Weights $weights, bool $withMatrix, iterable $coordinates, array $scale = []): void
    {
        $structure = $this->structure;
        $normal = array_fill(0, max($structure->cholesky->valueCount, 1), 0.0);
        $rhs = array_fill(0, max($structure->parameterCount, 1), 0.0);
        $kinds = $structure->table->kind;
        $pattern = $structure->pattern;
        $patternStart = $structure->patternStart;
        $unknown = $structure->unknown;
        $placeStart = $structure->placeStart;
        $place = $structure->place;
        $coefficientStart = $structure->coefficientStart;
        $rowOf = $structure->table->row;
        $coefficient = $equations->coefficient;
        $misclosure = $equations->misclosure;
        foreach ($weights->weight as $i => $w) {
            if (0.0 === $w) {
                continue;
            }
            if (ObservationTable::VECTOR === $kinds[$i]) {
                continue;
            }
            if ([] !== $scale) {
                $w *= $scale[$i];
            }
            $p = $pattern[$i];
            $first = $patternStart[$p];
            $end = $patternStart[$p + 1];
            $o = $coefficientStart[$i] - $first;
            $wl = $w * $misclosure[$rowOf[$i]];
            if (!$withMatrix) {
                for ($a = $first; $a < $end; ++$a) {
                    $rhs[$unknown[$a]] += $coefficient[$o + $a] * $wl;
                }
                continue;
            }
            $q = $placeStart[$p];
            for ($a = $first; $a < $end; ++$a) {
                $c = $coefficient[$o + $a];
                $rhs[$unknown[$a]] += $c * $wl;
                $c *= $w;
                for ($b = $a; $b < $end; ++$b) {
                    $normal[$place[$q++]] += $c * $coefficient[$o + $b];
                }
            }
        }
        $this->normal = $normal;
        $this->rhs = $rhs;
        foreach ($weights->matrix as $i => $weight) {
            $this->addVector($i, $equations, $weight, [] === $scale ? 1.0 : $scale[$i]);
        }
        foreach ($coordinates as [$parameter, $sd, $misfit]) {
            $this->normal[$this->structure->diagonal[$parameter]] += 1.0 / ($sd * $sd);
            $this->rhs[$parameter] += $misfit / ($sd * $sd);
        }
    }

    /** @param list<list<float>> $weight */
    private function addVector(int $i, Linearization $equations, array $weight, float $scale): void
    {
        $structure = $this->structure;
        $p = $structure->pattern[$i];
        $first = $structure->patternStart[$p];
        $count = $structure->patternStart[$p + 1] - $first;
        $start = $structure->coefficientStart[$i];
        $row = $structure->table->row[$i];
        $coefficient = $equations->coefficient;
        for ($r = 0; $r < 3; ++$r) {
            for ($c = 0; $c < 3; ++$c) {
                $w = $weight[$r][$c] * $scale;
                if (0.0 === $w) {
                    continue;
                }
                $wl = $w * $equations->misclosure[$row + $c];
                $q = $structure->placeStart[$p];
                for ($a = 0; $a < $count; ++$a) {
                    $k = $coefficient[$start + $r * $count + $a];
                    $this->rhs[$structure->unknown[$first + $a]] += $k * $wl;
                    $k *= $w;
                    for ($b = $a; $b < $count; ++$b) {
                        // Both halves of the weight matrix come by, so that the upper triangle gets the whole product.
                        $this->normal[$structure->place[$q++]] += $k * $coefficient[$start + $c * $count + $b];
                    }
                }
            }
        }
    }
}
