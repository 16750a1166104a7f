<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

use Mensura\LinearAlgebra\Dense;
use Mensura\Network\Linearization;
use Mensura\Network\NetworkState;
use Mensura\Network\NormalEquations;
use Mensura\Network\ObservationEquations;
use Mensura\Network\ObservationTable;
use Mensura\Network\SolvedNetwork;

/**
 * The observation equations of a network about a state, and what a further parameter would be in them.
 *
 * With w what is observed less what the state gives, A its coefficients and B the effect of the parameter on the computed
 * values: d = M^-1 B'P(w - A N^-1 A'Pw) and M = B'PB - B'PA N^-1 A'PB; the weighted sum of squares falls by d'Md. One
 * elimination per parameter, of a sparse right-hand side, without solving again (Baarda 1968; Kok 1984, On data snooping
 * and multiple outlier testing).
 */
final class LinearModel
{
    /** A parameter with less of its weight left than this is not determined by the network. */
    private const DETERMINED = 1e-5;

    public readonly Linearization $linearization;
    public readonly ObservationEquations $equations;
    public readonly NormalEquations $normals;

    /** @var list<array{int, float, float}> weighted coordinates: unknown, standard deviation, given less present */
    public array $coordinates = [];

    /** @var list<int> observation of each row */
    private array $observationOf = [];

    /** @var list<float> L^-1 A'Pw */
    private array $reduced = [];

    /** @var list<float> selected inverse of the normal matrix, made when it is asked for */
    private array $q = [];

    /** @var list<float> misclosures less what the unknowns take up, per row */
    private array $left = [];

    public function __construct(private readonly SolvedNetwork $solved, public readonly NetworkState $state)
    {
        $this->equations = new ObservationEquations($solved->network, $state);
        $this->linearization = new Linearization($solved->structure, $this->equations, false);
        $this->normals = new NormalEquations($solved->structure);
        foreach ($solved->structure->table->kind as $i => $kind) {
            for ($r = ObservationTable::VECTOR === $kind ? 3 : 1; $r > 0; --$r) {
                $this->observationOf[] = $i;
            }
        }
    }

    /** @param array<int, float> $shifted what is to be added to given coordinates, by 3 * station + component */
    public function linearize(array $shifted = []): void
    {
        $this->linearization->at($this->state);
        $this->coordinates = [];
        foreach ($this->solved->weightedCoordinates() as [$s, $c, $sd]) {
            $present = 0 === $c ? $this->state->e[$s] : (1 === $c ? $this->state->n[$s] : $this->state->h[$s]);
            $this->coordinates[] = [
                $this->solved->structure->coordinateParameter[3 * $s + $c], $sd,
                (float) $this->solved->given[3 * $s + $c] + ($shifted[3 * $s + $c] ?? 0.0) - $present,
            ];
        }
    }

    /** @param list<float> $scale of the weights per observation, empty for none */
    public function factor(array $scale = []): void
    {
        $this->normals->assemble($this->linearization, $this->solved->weights, true, $this->coordinates, $scale);
        $this->solved->structure->cholesky->factor($this->normals->normal, $this->solved->held, 1e-15);
        $this->reduced = $this->q = $this->left = [];
    }

    /** @return list<float> shifts of the unknowns */
    public function step(): array
    {
        return $this->solved->structure->cholesky->solve($this->normals->rhs);
    }

    /** @param list<float> $shift */
    public function move(array $shift): float
    {
        return $this->state->move($this->solved->structure->parameterOwner, $shift);
    }

    /**
     * What is observed less what the state gives, after the unknowns have moved by a shift. Per row.
     *
     * @param list<float> $shift
     *
     * @return list<float>
     */
    public function misclosureAfter(array $shift): array
    {
        $structure = $this->solved->structure;
        $after = $this->linearization->misclosure;
        $coefficient = $this->linearization->coefficient;
        $at = 0;
        foreach ($this->observationOf as $row => $i) {
            $p = $structure->pattern[$i];
            for ($a = $structure->patternStart[$p], $end = $structure->patternStart[$p + 1]; $a < $end; ++$a) {
                $after[$row] -= $coefficient[$at++] * $shift[$structure->unknown[$a]];
            }
        }

        return $after;
    }

    /** Weighted sum of squares of the misclosures at the state. */
    public function sumSquares(): float
    {
        $sum = 0.0;
        $weights = $this->solved->weights;
        $table = $this->solved->structure->table;
        $w = $this->linearization->misclosure;
        foreach ($weights->weight as $i => $weight) {
            $row = $table->row[$i];
            if (isset($weights->matrix[$i])) {
                for ($r = 0; $r < 3; ++$r) {
                    for ($c = 0; $c < 3; ++$c) {
                        $sum += $w[$row + $r] * $weights->matrix[$i][$r][$c] * $w[$row + $c];
                    }
                }
            } elseif ($weight > 0.0) {
                $sum += $weight * $w[$row] * $w[$row];
            }
        }
        foreach ($this->coordinates as [, $sd, $misfit]) {
            $sum += $misfit * $misfit / ($sd * $sd);
        }

        return $sum;
    }

    /**
     * @param list<array<int, float>> $columns effect of each parameter on the computed values, by row; on a weighted
     *     coordinate by -1 - its number
     *
     * @return ?Estimate null where the network does not determine it
     */
    public function estimate(array $columns): ?Estimate
    {
        $cholesky = $this->solved->structure->cholesky;
        if ([] === $this->reduced) {
            $this->reduced = $cholesky->forward($this->normals->rhs);
        }
        $reciprocals = $cholesky->reciprocals();
        $loads = $weighted = $full = [];
        $m = [];
        $rhs = [];
        foreach ($columns as $j => $column) {
            $weighted[$j] = $this->weighted($column);
            [$load, $direct] = $this->load($weighted[$j]);
            $loads[$j] = $cholesky->forward($load);
            $sum = $direct;
            foreach ($loads[$j] as $k => $y) {
                if (0.0 !== $y) {
                    $sum -= $y * $reciprocals[$k] * $this->reduced[$k];
                }
            }
            $rhs[$j] = $sum;
        }
        foreach ($columns as $j => $column) {
            foreach ($columns as $l => $unused) {
                if ($l < $j) {
                    $m[$j][$l] = $m[$l][$j];
                    continue;
                }
                $direct = 0.0;
                foreach ($column as $row => $value) {
                    $direct += $value * ($weighted[$l][$row] ?? 0.0);
                }
                $sum = $direct;
                foreach ($loads[$j] as $k => $y) {
                    if (0.0 !== $y) {
                        $sum -= $y * $reciprocals[$k] * $loads[$l][$k];
                    }
                }
                $m[$j][$l] = $sum;
                if ($j === $l) {
                    $full[$j] = $direct;
                }
            }
        }
        foreach ($full as $j => $own) {
            if (!($m[$j][$j] > self::DETERMINED * $own)) {
                return null;
            }
        }
        $m = array_values(array_map(array_values(...), $m));
        $covariance = Dense::inverse($m);
        if (null === $covariance) {
            return null;
        }
        $delta = [];
        $fall = 0.0;
        foreach ($covariance as $j => $row) {
            if (!($row[$j] > 0.0) || $row[$j] * $m[$j][$j] > 1.0 / self::DETERMINED) {
                return null;
            }
            $sum = 0.0;
            foreach ($row as $l => $value) {
                $sum += $value * $rhs[$l];
            }
            $delta[] = $sum;
            $fall += $sum * $rhs[$j];
        }

        return new Estimate($delta, $covariance, $fall);
    }

    /**
     * The same for a value to be added to one scalar observation, from the entries of the inverse that belong to it.
     */
    public function estimateReading(int $i): ?Estimate
    {
        $structure = $this->solved->structure;
        if ([] === $this->q) {
            $this->q = $structure->cholesky->selectedInverse();
            $this->left = $this->misclosureAfter($this->step());
        }
        $p = $structure->pattern[$i];
        $first = $structure->patternStart[$p];
        $end = $structure->patternStart[$p + 1];
        $o = $structure->coefficientStart[$i] - $first;
        $at = $structure->placeStart[$p];
        $variance = 0.0;
        for ($a = $first; $a < $end; ++$a) {
            $c = $this->linearization->coefficient[$o + $a];
            $variance += $c * $c * $this->q[$structure->place[$at++]];
            for ($b = $a + 1; $b < $end; ++$b) {
                $variance += 2.0 * $c * $this->linearization->coefficient[$o + $b] * $this->q[$structure->place[$at++]];
            }
        }
        $weight = $this->solved->weights->weight[$i];
        $redundancy = 1.0 - $weight * $variance;
        if (!($redundancy > self::DETERMINED)) {
            return null;
        }
        $delta = -$this->left[$structure->table->row[$i]] / $redundancy;

        return new Estimate([$delta], [[1.0 / ($weight * $redundancy)]], $delta * $delta * $weight * $redundancy);
    }

    /**
     * One Gauss-Newton step of the unknowns and of a further parameter together.
     *
     * @param list<array<int, float>> $columns
     */
    public function stepWith(array $columns, Estimate $estimate): float
    {
        $cholesky = $this->solved->structure->cholesky;
        $rhs = $this->normals->rhs;
        foreach ($columns as $j => $column) {
            [$load] = $this->load($this->weighted($column));
            foreach ($load as $k => $value) {
                $rhs[$k] -= $value * $estimate->delta[$j];
            }
        }

        return $this->move($cholesky->solve($rhs));
    }

    /**
     * @param array<int, float> $column
     *
     * @return array<int, float> PB by row
     */
    private function weighted(array $column): array
    {
        $weights = $this->solved->weights;
        $table = $this->solved->structure->table;
        $out = [];
        foreach ($column as $row => $value) {
            if ($row < 0) {
                [, $sd] = $this->coordinates[abs($row) - 1];
                $out[$row] = $value / ($sd * $sd);
                continue;
            }
            $i = $this->observationOf[$row];
            if (!isset($weights->matrix[$i])) {
                $out[$row] = $value * $weights->weight[$i];
                continue;
            }
            $first = $table->row[$i];
            for ($r = 0; $r < 3; ++$r) {
                $out[$first + $r] = ($out[$first + $r] ?? 0.0) + $weights->matrix[$i][$r][$row - $first] * $value;
            }
        }

        return $out;
    }

    /**
     * @param array<int, float> $weighted
     *
     * @return array{list<float>, float} A'PB, and B'Pw
     */
    private function load(array $weighted): array
    {
        $structure = $this->solved->structure;
        $load = array_fill(0, max($structure->parameterCount, 1), 0.0);
        $direct = 0.0;
        foreach ($weighted as $row => $value) {
            if ($row < 0) {
                [$parameter, , $misfit] = $this->coordinates[abs($row) - 1];
                $load[$parameter] += $value;
                $direct += $value * $misfit;
                continue;
            }
            $i = $this->observationOf[$row];
            $p = $structure->pattern[$i];
            $first = $structure->patternStart[$p];
            $end = $structure->patternStart[$p + 1];
            $o = $structure->coefficientStart[$i] + ($row - $structure->table->row[$i]) * ($end - $first) - $first;
            for ($a = $first; $a < $end; ++$a) {
                $load[$structure->unknown[$a]] += $this->linearization->coefficient[$o + $a] * $value;
            }
            $direct += $value * $this->linearization->misclosure[$row];
        }

        return [array_values($load), $direct];
    }
}
