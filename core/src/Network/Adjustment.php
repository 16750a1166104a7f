<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;
use Mensura\LinearAlgebra\Dense;
use Mensura\LinearAlgebra\SelectedInverse;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Reference\OutsideProjection;

/**
 * Least-squares adjustment of a network by iterated linearization (Gauss-Newton) with sparse normal equations.
 *
 * Reliability after Baarda (1968), A testing procedure for use in geodetic networks: redundancy numbers from
 * Qvv P, minimal detectable bias with delta0 = 4.13 (alpha 0.001 two-sided, power 0.80). Screening is his
 * data snooping repeated, one observation at a time.
 */
final class Adjustment
{
    /** delta0 of Baarda's nomogram for alpha 0.001 and power 0.80. */
    public const DELTA0 = 4.13;

    /** Two-sided 0.1 % point of the standard normal distribution. */
    public const CRITICAL = 3.29;

    /** Convergence, metres: a hundredth of what results are stated to. */
    private const CONVERGED = 1e-6;

    /** The factor of the normal equations is kept while stations stay within this distance of where it was made, metres. */
    private const REFACTOR = 1e-2;

    /** @var array<int, array{bool, bool, bool}> */
    private array $used;

    private NetworkStructure $structure;
    private NetworkState $state;
    private ObservationEquations $equations;

    /** @var list<?float> given coordinates, 3 per station */
    private array $given;

    /** @var list<?list<float>> per observation: misclosure per row (observed - computed), null when it cannot be predicted */
    private array $misclosure = [];

    /** @var list<list<list<float>>> per observation and row: coefficients of its unknowns */
    private array $coefficients = [];

    /** @var list<list<list<float>>> per observation: covariance, SI and radians */
    private array $covariances = [];

    /** @var list<?list<list<float>>> per observation: weight matrix with zeros at unused components, null when nothing is used */
    private array $weights = [];

    /** @var array<int, true> stations whose plan nothing gives or touches */
    private array $placeless;

    private ?Datum $datum = null;
    private ?FreeDatum $freeDatum = null;

    /** @var list<array{index: int, component?: string, pass: int, standardized: float, reason: string}> */
    private array $screened = [];

    /**
     * @param ?\Closure(string, float): void $progress stage and fraction done; may throw to cancel
     *
     * @throws UnusableInput when a station cannot be placed or determined
     */
    public function __construct(
        private readonly NetworkDefinition $network,
        private readonly bool $free = false,
        private readonly bool $preanalysis = false,
        private readonly ?\Closure $progress = null,
    ) {
        $this->used = array_map(static fn (Observation $o): array => $o->used, $network->observations);
        $this->report('approximate coordinates', 0.05);
        try {
            $start = StartingPlaces::find($network);
        } catch (OutsideProjection $e) {
            throw new UnusableInput('stations', $e->getMessage().' Check the coordinates and the system.');
        }
        $this->state = $start->state;
        $this->given = $start->given;
        $this->placeless = $start->placeless;
        $this->equations = new ObservationEquations($network, $this->state);
        $this->report('order of elimination', 0.1);
        $this->structure = new NetworkStructure($network, $this->used, $free);
        foreach (array_keys($network->observations) as $i) {
            $this->weigh($i);
        }
        if ([] === array_filter($this->weights)) {
            throw new UnusableInput('observations', 'nothing is observed: every observation is set aside');
        }
        if (0 === $this->structure->parameterCount) {
            throw new UnusableInput(
                'observations',
                'nothing is left to determine: every station that an observation in use reaches is held',
            );
        }
    }

    /**
     * @param ?float $screenLimit set aside, one at a time, what exceeds this standardized residual
     */
    public function run(?float $screenLimit = null): AdjustmentResult
    {
        try {
            return $this->solveAndScreen($screenLimit);
        } catch (OutsideProjection) {
            throw new UnusableInput(
                'observations',
                'the adjustment does not converge: stations move out of the projection; look for a gross blunder or a '
                    .'wrong approximate coordinate',
            );
        }
    }

    private function solveAndScreen(?float $screenLimit): AdjustmentResult
    {
        [$converged, $iterations, $inverse] = $this->solve();
        $result = $this->judge($converged, $iterations, $inverse);
        for ($pass = 1; null !== $screenLimit && !$this->preanalysis; ++$pass) {
            $worst = null;
            foreach ($result->observations as $row) {
                if ('full' === $row['use']
                    && $row['redundancyNumber'] > 1e-5
                    && null !== $row['standardized']
                    && abs($row['standardized']) > max($screenLimit, abs($worst['standardized'] ?? 0.0))
                ) {
                    $worst = $row;
                }
            }
            if (null === $worst) {
                break;
            }
            $this->report(\sprintf('screening, pass %d', $pass), 0.8);
            $component = isset($worst['component']) ? (int) array_search($worst['component'], ['dx', 'dy', 'dz'], true) : 0;
            $used = $this->used[$worst['index']];
            $this->used[$worst['index']] = [$used[0] && 0 !== $component, $used[1] && 1 !== $component, $used[2] && 2 !== $component];
            $this->weigh($worst['index']);
            $entry = ['index' => $worst['index'], 'pass' => $pass, 'standardized' => $worst['standardized'], 'reason' => 'screened'];
            if (isset($worst['component'])) {
                $entry['component'] = $worst['component'];
            }
            $this->screened[] = $entry;
            [$converged, $more, $inverse] = $this->solve();
            $iterations += $more;
            $result = $this->judge($converged, $iterations, $inverse);
        }

        return $result;
    }

    private function report(string $stage, float $fraction): void
    {
        if (null !== $this->progress) {
            ($this->progress)($stage, $fraction);
        }
    }

    /** Covariance and weight of an observation as it is used now. */
    private function weigh(int $i): void
    {
        $o = $this->network->observations[$i];
        $used = $this->used[$i];
        if (ObservationKind::Vector !== $o->kind) {
            $sd = $this->equations->standardDeviation($o);
            if (null === $sd) {
                throw new UnusableInput(
                    $this->network->source($i),
                    \sprintf('this %s has no standard deviation; give it an sd or set settings.sigma', $o->kind->value),
                );
            }
            if (!($sd > 0.0) || is_infinite($sd)) {
                throw new UnusableInput($this->network->source($i), \sprintf(
                    'the standard deviation of this %s from %s to %s comes out as %s; it must be positive (are both ends at one place?)',
                    $o->kind->value, $o->from, $o->to, $sd,
                ));
            }
            $this->covariances[$i] = [[$sd * $sd]];
            $this->weights[$i] = $used[0] ? [[1.0 / ($sd * $sd)]] : null;

            return;
        }
        $covariance = $o->covariance ?? throw new UnusableInput($this->network->source($i), 'this vector has no covariance');
        $this->covariances[$i] = $covariance;
        $keep = array_keys(array_filter($used));
        if ([] === $keep) {
            $this->weights[$i] = null;

            return;
        }
        $sub = [];
        foreach ($keep as $r) {
            $row = [];
            foreach ($keep as $c) {
                $row[] = $covariance[$r][$c];
            }
            $sub[] = $row;
        }
        $inverse = Dense::inverse($sub);
        if (null === $inverse) {
            throw new UnusableInput(
                $this->network->source($i),
                \sprintf('the covariance of the vector %s to %s is singular', $o->from, $o->to),
            );
        }
        $weight = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        foreach ($keep as $a => $r) {
            foreach ($keep as $b => $c) {
                $weight[$r][$c] = $inverse[$a][$b];
            }
        }
        $this->weights[$i] = $weight;
    }

    private function orient(): void
    {
        $sum = [];
        foreach ($this->network->observations as $i => $o) {
            $set = $this->structure->observationSet[$i];
            if (null === $set) {
                continue;
            }
            $this->state->orientation[$set] ??= 0.0;
            if (!$this->used[$i][0] || null === $o->value) {
                continue;
            }
            [[$computed]] = $this->equations->of($o, null);
            $turn = $computed - deg2rad($o->value);
            $sum[$set] ??= [0.0, 0.0];
            $sum[$set][0] += cos($turn);
            $sum[$set][1] += sin($turn);
        }
        foreach ($sum as $set => [$c, $s]) {
            $this->state->orientation[$set] = atan2($s, $c);
        }
    }

    /** Misclosures and coefficients at the present state. */
    private function linearize(): void
    {
        $structure = $this->structure;
        foreach ($this->network->observations as $i => $o) {
            $set = $structure->observationSet[$i];
            $rows = $this->equations->of($o, $set);
            $columns = $structure->blockColumns[$i];
            $misclosure = [];
            $coefficients = [];
            foreach ($rows as $r => [$computed, $partials, $byOrientation]) {
                $row = [];
                foreach ($columns as $column) {
                    $row[] = 9 === $column ? $byOrientation : $partials[$column];
                }
                $coefficients[] = $row;
                if ($this->preanalysis) {
                    $misclosure[] = 0.0;
                } elseif (ObservationKind::Vector === $o->kind) {
                    $misclosure[] = (float) ($o->components[$r] ?? 0.0) - $computed;
                } elseif ($o->kind->isAngular()) {
                    $observed = (float) $o->value;
                    if (ObservationKind::Zenith === $o->kind && $observed > 180.0) {
                        $observed = 360.0 - $observed;
                    }
                    $difference = deg2rad($observed) - $computed;
                    $misclosure[] = $difference - 2.0 * \M_PI * round($difference / (2.0 * \M_PI));
                } else {
                    $misclosure[] = (float) $o->value - $computed;
                }
            }
            $this->coefficients[$i] = $coefficients;
            $this->misclosure[$i] = null !== $set && $structure->setParameter[$set] < 0 ? null : $misclosure;
        }
    }

    /**
     * @return array{list<float>, list<float>} normal matrix (diagonal, then upper pattern) and right-hand side
     */
    private function normals(bool $matrix): array
    {
        $structure = $this->structure;
        $normal = array_fill(0, $structure->normalSize, 0.0);
        $rhs = array_fill(0, $structure->parameterCount, 0.0);
        foreach ($this->weights as $i => $weight) {
            if (null === $weight) {
                continue;
            }
            $parameters = $structure->blockParameters[$i];
            $count = \count($parameters);
            $rows = $this->coefficients[$i];
            $misclosure = $this->misclosure[$i] ?? [];
            if (1 === \count($weight)) {
                $w = $weight[0][0];
                $row = $rows[0];
                $wl = $w * $misclosure[0];
                for ($a = 0; $a < $count; ++$a) {
                    $rhs[$parameters[$a]] += $row[$a] * $wl;
                }
                if ($matrix) {
                    $positions = $structure->blockPositions[$i];
                    $p = 0;
                    for ($a = 0; $a < $count; ++$a) {
                        $wa = $w * $row[$a];
                        for ($b = $a; $b < $count; ++$b) {
                            $normal[$positions[$p++]] += $wa * $row[$b];
                        }
                    }
                }
                continue;
            }
            $weighted = [];
            for ($r = 0; $r < 3; ++$r) {
                $wl = $weight[$r][0] * $misclosure[0] + $weight[$r][1] * $misclosure[1] + $weight[$r][2] * $misclosure[2];
                for ($a = 0; $a < $count; ++$a) {
                    $rhs[$parameters[$a]] += $rows[$r][$a] * $wl;
                    $weighted[$r][$a] = $weight[$r][0] * $rows[0][$a] + $weight[$r][1] * $rows[1][$a] + $weight[$r][2] * $rows[2][$a];
                }
            }
            if ($matrix) {
                $positions = $structure->blockPositions[$i];
                $p = 0;
                for ($a = 0; $a < $count; ++$a) {
                    for ($b = $a; $b < $count; ++$b) {
                        $normal[$positions[$p++]] += $weighted[0][$a] * $rows[0][$b] + $weighted[1][$a] * $rows[1][$b]
                            + $weighted[2][$a] * $rows[2][$b];
                    }
                }
            }
        }
        if (!$this->free) {
            foreach ($this->weightedCoordinates() as [$parameter, $sd, $misfit]) {
                $normal[$parameter] += 1.0 / ($sd * $sd);
                $rhs[$parameter] += $misfit / ($sd * $sd);
            }
        }

        return [$normal, $rhs];
    }

    /** @return \Traversable<int, array{int, float, float}> unknown, standard deviation, given minus present coordinate */
    private function weightedCoordinates(): \Traversable
    {
        foreach ($this->network->stations as $s => $station) {
            foreach ($station->sd as $c => $sd) {
                $parameter = $this->structure->coordinateParameter[3 * $s + $c];
                if (null !== $sd && $parameter >= 0 && !$station->fixed[$c]) {
                    $present = 0 === $c ? $this->state->e[$s] : (1 === $c ? $this->state->n[$s] : $this->state->h[$s]);
                    yield [$parameter, $sd, (float) $this->given[3 * $s + $c] - $present];
                }
            }
        }
    }

    /**
     * @return array{bool, int, SelectedInverse}
     */
    private function solve(): array
    {
        $structure = $this->structure;
        $cholesky = $structure->cholesky;
        $max = $this->preanalysis ? 1 : $this->network->settings->maxIterations;
        $first = [] === $this->misclosure;
        if ($first) {
            $this->orient();
        }
        $sinceFactor = \INF;
        $converged = $this->preanalysis;
        $iteration = 0;
        while ($iteration < $max) {
            ++$iteration;
            $this->report(\sprintf('iteration %d', $iteration), min(0.6, 0.1 + 0.1 * $iteration));
            $this->linearize();
            $refactor = $sinceFactor > self::REFACTOR;
            [$normal, $rhs] = $this->normals($refactor);
            if ($refactor) {
                if ($first) {
                    $this->datum = new Datum($structure, $this->state, $this->given, $this->weights, fn (): iterable => $this->usedRows());
                    $first = false;
                }
                $this->factor($normal);
                $sinceFactor = 0.0;
            }
            if ($this->preanalysis) {
                break;
            }
            $shift = $cholesky->solve($rhs);
            if (null !== $this->freeDatum) {
                $shift = $this->freeDatum->transform($shift, $this->moved());
            }
            $largest = $this->move($shift);
            if (!($largest < 1e7)) {
                throw new UnusableInput('observations', \sprintf(
                    'the adjustment does not converge: stations move by more than %.0f km; look for a gross blunder or a '
                        .'wrong approximate coordinate',
                    1e4,
                ));
            }
            $sinceFactor += $largest;
            if ($largest < self::CONVERGED) {
                $converged = true;
                break;
            }
        }
        // The precisions, and one last exact step, at the place that was reached.
        $this->report('precisions', 0.65);
        if (!$this->preanalysis) {
            $this->linearize();
            if ($sinceFactor > 1e-5) {
                [$normal, $rhs] = $this->normals(true);
                $this->factor($normal);
                $shift = $cholesky->solve($rhs);
                if (null !== $this->freeDatum) {
                    $shift = $this->freeDatum->transform($shift, $this->moved());
                }
                $this->move($shift);
                $this->linearize();
            }
        }
        $inverse = $cholesky->selectedInverse();
        $this->freeDatum?->prepareCovariance($cholesky);

        return [$converged, $iteration, $inverse];
    }

    /** @param list<float> $normal */
    private function factor(array $normal): void
    {
        $this->freeDatum = $this->datum?->renew();
        $held = $this->datum->held ?? [];
        $n = $this->structure->parameterCount;
        $diagonal = \array_slice($normal, 0, $n);
        $upper = \array_slice($normal, $n);
        $null = $this->structure->cholesky->factor($upper, $diagonal, $held);
        if ([] === $null) {
            return;
        }
        $undetermined = new Undetermined($this->network, $this->structure->parameterOwner);
        foreach ($null as $k) {
            $direction = $this->structure->cholesky->nullDirection($k);
            if ($this->isTrulyNull($direction)) {
                $undetermined->add($direction);
            }
        }
        if (null !== $reason = $undetermined->reason()) {
            throw new UnusableInput('stations', $reason);
        }
        $this->structure->cholesky->factor($upper, $diagonal, $held, 1e-15);
    }

    /** @param list<float> $direction */
    private function isTrulyNull(array $direction): bool
    {
        foreach ($this->usedRows() as [$parameters, $row]) {
            $sum = $size = 0.0;
            foreach ($parameters as $a => $p) {
                $sum += $row[$a] * $direction[$p];
                $size += abs($row[$a] * $direction[$p]);
            }
            if (abs($sum) > 1e-7 * $size && $size > 1e-9) {
                return false;
            }
        }

        return true;
    }

    /** @return iterable<array{list<int>, list<float>}> */
    private function usedRows(): iterable
    {
        foreach ($this->weights as $i => $weight) {
            if (null === $weight) {
                continue;
            }
            foreach ($this->coefficients[$i] as $r => $row) {
                if ($this->used[$i][$r]) {
                    yield [$this->structure->blockParameters[$i], $row];
                }
            }
        }
        if (!$this->free) {
            foreach ($this->weightedCoordinates() as [$parameter]) {
                yield [[$parameter], [1.0]];
            }
        }
    }

    /** @return list<float> per unknown, how far it is from its given coordinate */
    private function moved(): array
    {
        $moved = [];
        foreach ($this->structure->parameterOwner as [$s, $c]) {
            $given = $c < 3 ? $this->given[3 * $s + $c] : null;
            $present = 0 === $c ? $this->state->e[$s] : (1 === $c ? $this->state->n[$s] : ($this->state->h[$s] ?? 0.0));
            $moved[] = null === $given ? 0.0 : $present - $given;
        }

        return $moved;
    }

    /**
     * @param list<float> $shift
     *
     * @return float the largest shift of a coordinate, metres
     */
    private function move(array $shift): float
    {
        $largest = 0.0;
        foreach ($this->structure->parameterOwner as $k => [$s, $c]) {
            $d = $shift[$k];
            if (!is_finite($d)) {
                return \INF;
            }
            if (3 === $c) {
                $this->state->orientation[$s] += $d;
                continue;
            }
            $largest = max($largest, abs($d));
            if (0 === $c) {
                $this->state->e[$s] += $d;
            } elseif (1 === $c) {
                $this->state->n[$s] += $d;
            } else {
                $this->state->h[$s] += $d;
            }
        }
        if ($largest < 1e7) {
            $this->state->refresh();
        }

        return $largest;
    }

    private function judge(bool $converged, int $iterations, SelectedInverse $inverse): AdjustmentResult
    {
        $this->report('statistics', 0.75);
        $judgement = new Judgement(
            $this->structure, $this->state,
            new Equations($this->used, $this->weights, $this->covariances, $this->coefficients, $this->misclosure),
            $this->free ? [] : iterator_to_array($this->weightedCoordinates(), false), $this->placeless, $inverse,
            $this->freeDatum, $this->datum->defect ?? 0, $this->preanalysis,
        );

        return $judgement->result($converged, $iterations, $this->screened);
    }
}
