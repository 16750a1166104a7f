<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;
use Mensura\LinearAlgebra\Dense;
use Mensura\LinearAlgebra\SelectedInverse;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Statistics\Distribution;

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

    /** Below this an observation controls nothing and nothing controls it. */
    private const UNCONTROLLED = 1e-7;

    /** @var array<int, array{bool, bool, bool}> */
    private array $used;

    private NetworkStructure $structure;
    private NetworkState $state;
    private ObservationEquations $equations;

    /** @var list<?float> given coordinates, 3 per station */
    private array $given = [];

    /** @var list<?list<float>> per observation: misclosure per row (observed - computed), null when it cannot be predicted */
    private array $misclosure = [];

    /** @var list<list<list<float>>> per observation and row: coefficients of its unknowns */
    private array $coefficients = [];

    /** @var list<list<list<float>>> per observation: covariance, SI and radians */
    private array $covariances = [];

    /** @var list<?list<list<float>>> per observation: weight matrix with zeros at unused components, null when nothing is used */
    private array $weights = [];

    /** @var array<int, true> unknowns held to give a free network a datum to compute in */
    private array $held = [];

    /** @var array<int, true> stations whose plan nothing gives or touches */
    private array $placeless = [];

    private ?FreeDatum $datum = null;

    /** @var array<int, true> modes that are shifts in Cartesian space */
    private array $cartesianModes = [];

    /** @var list<array{int, array<int, float>}> mode number and its constraint */
    private array $freeModes = [];
    private int $defect = 0;

    /** @var list<string> */
    private array $warnings = [];

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
        $this->place();
        $this->equations = new ObservationEquations($network, $this->state);
        $this->report('order of elimination', 0.1);
        $this->structure = new NetworkStructure($network, $this->used, $free);
        if (0 === $this->structure->parameterCount) {
            throw new UnusableInput('observations', 'nothing to adjust: no used observation reaches a station that is not held');
        }
        foreach (array_keys($network->observations) as $i) {
            $this->weigh($i);
        }
    }

    /**
     * @param ?float $screenLimit set aside, one at a time, what exceeds this standardized residual
     */
    public function run(?float $screenLimit = null): AdjustmentResult
    {
        [$converged, $iterations, $inverse] = $this->solve();
        $result = $this->judge($converged, $iterations, $inverse);
        for ($pass = 1; null !== $screenLimit && !$this->preanalysis; ++$pass) {
            $worst = null;
            foreach ($result->observations as $row) {
                if ('full' === $row['use'] && $row['redundancyNumber'] > 1e-5 && abs($row['standardized']) > max($screenLimit, abs($worst['standardized'] ?? 0.0))) {
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

    private function place(): void
    {
        [$e, $n, $h] = ApproximateCoordinates::of($this->network);
        $touchesHeight = [];
        foreach ($this->network->observations as $o) {
            if (!$o->kind->isPlanOnly()) {
                $touchesHeight[$o->from] = $touchesHeight[$o->to] = true;
            }
        }
        $touchesPlan = [];
        foreach ($this->network->observations as $o) {
            if (ObservationKind::HeightDifference !== $o->kind) {
                $touchesPlan[$o->from] = $touchesPlan[$o->to] = true;
                if (null !== $o->back) {
                    $touchesPlan[$o->back] = true;
                }
            }
        }
        $lost = [];
        $heightSum = 0.0;
        $heightCount = 0;
        foreach ($this->network->stations as $s => $station) {
            $this->given[] = $station->e;
            $this->given[] = $station->n;
            $this->given[] = $station->h;
            if (null !== $h[$s]) {
                $heightSum += $h[$s];
                ++$heightCount;
            }
        }
        foreach ($this->network->stations as $s => $station) {
            $missing = [];
            if (null === $e[$s] || null === $n[$s]) {
                if (isset($touchesPlan[$station->id]) || !$this->network->frame->isPlane()) {
                    $missing[] = 'plan position';
                }
                $e[$s] = 0.0;
                $n[$s] = 0.0;
                $this->placeless[$s] = true;
            }
            if (null === $h[$s]) {
                if (isset($touchesHeight[$station->id]) && ($heightCount > 0 || $this->network->frame->isPlane()) && isset($touchesPlan[$station->id]) && !$this->hasHeightSource($station->id)) {
                    $h[$s] = $heightCount > 0 ? $heightSum / $heightCount : 0.0;
                } elseif (isset($touchesHeight[$station->id])) {
                    $missing[] = 'height';
                }
                $h[$s] ??= 0.0;
            }
            if ([] !== $missing) {
                $lost[] = \sprintf('%s (%s)', $station->id, implode(' and ', $missing));
            }
        }
        if ([] !== $lost) {
            sort($lost, \SORT_NATURAL);
            throw new UnusableInput('stations', \sprintf('no approximate position can be found for %s; give coordinates, or observe from stations that have them', self::listed($lost)));
        }
        /** @var list<float> $e */
        /** @var list<float> $n */
        /** @var list<float> $h */
        $this->state = new NetworkState($this->network->frame, $e, $n, $h);
    }

    private function hasHeightSource(string $id): bool
    {
        foreach ($this->network->observations as $o) {
            if (($o->from === $id || $o->to === $id) && \in_array($o->kind, [ObservationKind::HeightDifference, ObservationKind::Zenith, ObservationKind::Vector], true)) {
                return true;
            }
        }

        return false;
    }

    /** Covariance and weight of an observation as it is used now. */
    private function weigh(int $i): void
    {
        $o = $this->network->observations[$i];
        $used = $this->used[$i];
        if (ObservationKind::Vector !== $o->kind) {
            $sd = $this->equations->standardDeviation($o);
            if (null === $sd) {
                throw new UnusableInput($this->network->source($i), \sprintf('this %s has no standard deviation; give it an sd or set settings.sigma', $o->kind->value));
            }
            if (!($sd > 0.0) || is_infinite($sd)) {
                throw new UnusableInput($this->network->source($i), \sprintf('the standard deviation of this %s from %s to %s comes out as %s; it must be positive (are both ends at one place?)', $o->kind->value, $o->from, $o->to, $sd));
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
            throw new UnusableInput($this->network->source($i), \sprintf('the covariance of the vector %s to %s is singular', $o->from, $o->to));
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
                        $normal[$positions[$p++]] += $weighted[0][$a] * $rows[0][$b] + $weighted[1][$a] * $rows[1][$b] + $weighted[2][$a] * $rows[2][$b];
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

    /** @return iterable<array{int, float, float}> unknown, standard deviation, given minus present coordinate */
    private function weightedCoordinates(): iterable
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
                    $this->establishDatum();
                    $first = false;
                }
                $this->factor($normal);
                $sinceFactor = 0.0;
            }
            if ($this->preanalysis) {
                break;
            }
            $shift = $cholesky->solve($rhs);
            if (null !== $this->datum) {
                $shift = $this->datum->transform($shift, $this->moved());
            }
            $largest = $this->move($shift);
            if (!($largest < 1e7)) {
                throw new UnusableInput('observations', \sprintf('the adjustment does not converge: stations move by more than %.0f km; look for a gross blunder or a wrong approximate coordinate', 1e4));
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
                if (null !== $this->datum) {
                    $shift = $this->datum->transform($shift, $this->moved());
                }
                $this->move($shift);
                $this->linearize();
            }
        }
        $inverse = $cholesky->selectedInverse();
        $this->datum?->prepareCovariance($cholesky);

        return [$converged, $iteration, $inverse];
    }

    /** @param list<float> $normal */
    private function factor(array $normal): void
    {
        $this->renewDatum();
        $n = $this->structure->parameterCount;
        $diagonal = \array_slice($normal, 0, $n);
        $upper = \array_slice($normal, $n);
        $null = $this->structure->cholesky->factor($upper, $diagonal, $this->held);
        if ([] === $null) {
            return;
        }
        $problems = [];
        foreach ($null as $k) {
            $direction = $this->structure->cholesky->nullDirection($k);
            if ($this->isTrulyNull($direction)) {
                $problems[$this->describe($direction)] = true;
            }
        }
        if ([] !== $problems) {
            throw new UnusableInput('observations', 'undetermined: '.implode('; ', array_keys($problems)));
        }
        $this->structure->cholesky->factor($upper, $diagonal, $this->held, 1e-15);
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

    /** @param list<float> $direction */
    private function describe(array $direction): string
    {
        $stations = [];
        $largest = 0.0;
        foreach ($this->structure->parameterOwner as $k => [$s, $c]) {
            if ($c < 3) {
                $largest = max($largest, abs($direction[$k]));
            }
        }
        foreach ($this->structure->parameterOwner as $k => [$s, $c]) {
            if ($c < 3 && abs($direction[$k]) > 1e-3 * $largest) {
                $stations[$s][$c] = true;
            }
        }
        $byNeed = [];
        foreach ($stations as $s => $components) {
            $plan = isset($components[0]) || isset($components[1]);
            $need = $plan && isset($components[2]) ? 'position' : ($plan ? 'plan position' : 'height');
            $byNeed[$need][] = $this->network->stations[$s]->id;
        }
        $parts = [];
        foreach ($byNeed as $need => $ids) {
            sort($ids, \SORT_NATURAL);
            $parts[] = \sprintf('the %s of %s', $need, self::listed($ids));
        }
        $remedy = 1 === \count($stations)
            ? 'add an observation that reaches it, hold it, or leave it out'
            : 'hold or weight a station among them, or observe between them and the rest';

        return implode(' and ', $parts).' is not determined by the used observations; '.$remedy;
    }

    /** @param list<string> $names */
    private static function listed(array $names): string
    {
        $count = \count($names);
        if ($count > 8) {
            return implode(', ', \array_slice($names, 0, 8)).\sprintf(' and %d more', $count - 8);
        }

        return implode(', ', $names);
    }

    /** Finds in which ways each connected part can move unnoticed; an error, or for a free network its datum. */
    private function establishDatum(): void
    {
        $parts = $this->connectedParts();
        $held = [];
        foreach ($parts as $stations) {
            $modes = DatumModes::of($this->structure, $stations, $this->state->e, $this->state->n, $this->state->h);
            $rows = function () use ($stations): iterable {
                foreach ($this->usedRows() as [$parameters, $row]) {
                    foreach ($parameters as $p) {
                        [$s, $component] = $this->structure->parameterOwner[$p];
                        if ($component < 3 && isset($stations[$s])) {
                            yield [$parameters, $row];
                            break;
                        }
                    }
                }
            };
            $owner = $this->structure->parameterOwner;
            $unnoticed = DatumModes::unnoticed($modes, $rows(), $owner);
            $shifts = DatumModes::cartesian($this->structure, $stations, $this->state);
            foreach (array_diff(DatumModes::unnoticed($shifts, $rows(), $owner), $unnoticed) as $k) {
                $modes[$k] = $shifts[$k];
                $unnoticed[] = $k;
                $this->cartesianModes[$k] = true;
            }
            sort($unnoticed);
            if ([] === $unnoticed || 1 === \count($stations)) {
                continue; // a lone station is named by the factorization, component by component
            }
            if (!$this->free) {
                $ids = array_map(fn (int $s): string => $this->network->stations[$s]->id, array_keys($stations));
                sort($ids, \SORT_NATURAL);
                throw new UnusableInput('stations', \sprintf('datum defect: nothing fixes the %s of %s; hold or weight coordinates there, or adjust as a free network', implode(', ', array_map(static fn (int $k): string => DatumModes::NAMES[$k], $unnoticed)), self::listed($ids)));
            }
            if (\count($parts) > 1) {
                $ids = array_map(fn (int $s): string => $this->network->stations[$s]->id, array_keys($stations));
                throw new UnusableInput('observations', \sprintf('the network falls apart: no observation connects %s with the rest; adjust the parts separately or observe between them', self::listed($ids)));
            }
            $anchored = array_filter($stations, fn (int $s): bool => null !== $this->given[3 * $s] || null !== $this->given[3 * $s + 2], \ARRAY_FILTER_USE_KEY);
            $atGiven = [$this->state->e, $this->state->n, $this->state->h];
            foreach ($anchored as $s => $true) {
                for ($k = 0; $k < 3; ++$k) {
                    $atGiven[$k][$s] = $this->given[3 * $s + $k] ?? $atGiven[$k][$s];
                }
            }
            $constraints = DatumModes::of($this->structure, $anchored, $atGiven[0], $atGiven[1], $atGiven[2], false);
            $this->freeModes = array_map(static fn (int $k): array => [$k, $constraints[$k]], $unnoticed);
            $held = $this->hold($unnoticed, $modes);
        }
        $this->held = $held;
        $this->defect = \count($this->freeModes);
    }

    /** The free directions belong to the present coordinates, the constraints to the given ones. */
    private function renewDatum(): void
    {
        if ([] === $this->freeModes) {
            return;
        }
        $stations = $this->connectedParts()[0];
        $modes = array_intersect_key(DatumModes::cartesian($this->structure, $stations, $this->state), $this->cartesianModes)
            + DatumModes::of($this->structure, $stations, $this->state->e, $this->state->n, $this->state->h);
        $g = $c = [];
        foreach ($this->freeModes as [$k, $constraint]) {
            $dense = array_fill(0, $this->structure->parameterCount, 0.0);
            foreach ($modes[$k] as $p => $value) {
                $dense[$p] = $value;
            }
            $g[] = $dense;
            $c[] = $constraint;
        }
        $this->datum = new FreeDatum($g, $c);
    }

    /**
     * One unknown per mode, chosen by Gaussian elimination with complete pivoting so that holding them removes the defect well.
     *
     * @param list<int>               $unnoticed
     * @param list<array<int, float>> $modes
     *
     * @return array<int, true>
     */
    private function hold(array $unnoticed, array $modes): array
    {
        $work = [];
        foreach ($unnoticed as $k) {
            $mode = array_filter($modes[$k], fn (int $p): bool => $this->structure->parameterOwner[$p][1] < 3, \ARRAY_FILTER_USE_KEY);
            $scale = max(array_map(abs(...), $mode));
            $work[] = array_map(static fn (float $v): float => $v / $scale, $mode);
        }
        $held = [];
        while ([] !== $work) {
            $best = [0.0, 0, 0];
            foreach ($work as $r => $mode) {
                foreach ($mode as $p => $value) {
                    if (abs($value) > $best[0] + 1e-12) {
                        $best = [abs($value), $r, $p];
                    }
                }
            }
            [, $r, $pivot] = $best;
            $held[$pivot] = true;
            $row = $work[$r];
            unset($work[$r]);
            foreach ($work as $other => $mode) {
                $factor = ($mode[$pivot] ?? 0.0) / $row[$pivot];
                foreach ($row as $p => $value) {
                    $work[$other][$p] = ($work[$other][$p] ?? 0.0) - $factor * $value;
                }
            }
        }

        return $held;
    }

    /** @return list<array<int, true>> stations with unknowns, by connection through used observations */
    private function connectedParts(): array
    {
        $parent = [];
        $find = static function (int $s) use (&$parent): int {
            while (($parent[$s] ??= $s) !== $s) {
                $parent[$s] = $parent[$parent[$s]] ?? $parent[$s];
                $s = $parent[$s];
            }

            return $s;
        };
        foreach ($this->structure->parameterOwner as [$s, $c]) {
            if ($c < 3) {
                $find($s);
            }
        }
        $setAnchor = [];
        foreach ($this->weights as $i => $weight) {
            if (null === $weight) {
                continue;
            }
            $link = null;
            foreach ($this->structure->blockParameters[$i] as $p) {
                [$s, $c] = $this->structure->parameterOwner[$p];
                if (3 === $c) {
                    $s = $setAnchor[$s] ??= $link ?? -1;
                    if ($s < 0) {
                        continue;
                    }
                }
                $root = $find($s);
                if (null !== $link) {
                    $parent[$root] = $find($link);
                }
                $link = $s;
            }
        }
        $parts = [];
        foreach (array_keys($parent) as $s) {
            $parts[$find($s)][$s] = true;
        }

        return array_values($parts);
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

    /**
     * @param list<int> $parameters
     *
     * @return list<list<float>> covariance of some unknowns that meet in one observation
     */
    private function covarianceOf(SelectedInverse $inverse, array $parameters): array
    {
        $q = [];
        foreach ($parameters as $a => $pa) {
            for ($b = 0; $b <= $a; ++$b) {
                $pb = $parameters[$b];
                $q[$a][$b] = $q[$b][$a] = null === $this->datum ? $inverse->at($pa, $pb) : $this->datum->covariance($inverse, $pa, $pb);
            }
        }

        return $q;
    }

    private function judge(bool $converged, int $iterations, SelectedInverse $inverse): AdjustmentResult
    {
        $this->report('statistics', 0.75);
        $rows = [];
        $groups = [];
        $count = 0;
        $sumSquares = 0.0;
        foreach ($this->network->observations as $i => $o) {
            foreach ($this->judgeObservation($i, $o, $inverse) as [$row, $square]) {
                $rows[] = $row;
                if ('full' === $row['use']) {
                    ++$count;
                    $sumSquares += $square;
                    $type = $o->kind->value;
                    $groups[$type] ??= [0, 0.0, 0.0];
                    ++$groups[$type][0];
                    $groups[$type][1] += $square;
                    $groups[$type][2] += $row['redundancyNumber'];
                }
            }
        }
        if (!$this->free) {
            foreach ($this->weightedCoordinates() as [$parameter, $sd, $misfit]) {
                ++$count;
                $square = $misfit * $misfit / ($sd * $sd);
                $sumSquares += $square;
                $groups['coordinate'] ??= [0, 0.0, 0.0];
                ++$groups['coordinate'][0];
                $groups['coordinate'][1] += $square;
                $groups['coordinate'][2] += 1.0 - $inverse->at($parameter, $parameter) / ($sd * $sd);
            }
        }
        $parameters = $this->structure->parameterCount;
        $redundancy = $count - $parameters + $this->defect;
        $tested = !$this->preanalysis && $redundancy > 0;
        $factor = $tested ? $sumSquares / $redundancy : null;
        $warnings = $this->warnings;
        if (0 === $redundancy) {
            $warnings[] = 'no redundancy: nothing checks these observations';
        }
        if (!$converged) {
            $warnings[] = \sprintf('not converged after %d iterations; look for a gross blunder or a wrong approximate coordinate', $iterations);
        }
        $test = null;
        if ($tested) {
            $level = round(1.0 - $this->network->settings->confidence, 12);
            $lower = Distribution::chiSquareQuantile(0.5 * $level, $redundancy);
            $upper = Distribution::chiSquareQuantile(1.0 - 0.5 * $level, $redundancy);
            $test = ['statistic' => $sumSquares, 'lower' => $lower, 'upper' => $upper, 'passed' => $sumSquares >= $lower && $sumSquares <= $upper, 'level' => $level];
        }
        $listed = [];
        foreach ($groups as $type => [$number, $square, $r]) {
            $listed[] = ['type' => $type, 'count' => $number, 'sumSquares' => $square, 'redundancy' => $r, 'varianceFactor' => !$this->preanalysis && $r > 1e-6 ? $square / $r : null];
        }
        $scale = $this->network->settings->scaleByVarianceFactor ? $factor ?? 1.0 : 1.0;

        return new AdjustmentResult($converged, $iterations, $count, $parameters, $redundancy, $factor, $test, $listed, $this->judgeStations($inverse, $scale), $rows, $this->screened, $warnings);
    }

    /** @return list<array<string, mixed>> */
    private function judgeStations(SelectedInverse $inverse, float $scale): array
    {
        $list = [];
        $state = $this->state;
        $quantile = sqrt(Distribution::chiSquareQuantile($this->network->settings->confidence, 2.0));
        foreach ($this->network->stations as $s => $station) {
            $unknown = [];
            $where = [];
            for ($c = 0; $c < 3; ++$c) {
                $p = $this->structure->coordinateParameter[3 * $s + $c];
                if ($p >= 0) {
                    $unknown[] = $p;
                    $where[] = $c;
                }
            }
            $covariance = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
            foreach ($this->covarianceOf($inverse, $unknown) as $a => $row) {
                foreach ($row as $b => $value) {
                    $covariance[$where[$a]][$where[$b]] = $scale * $value;
                }
            }
            $entry = ['id' => $station->id, 'e' => isset($this->placeless[$s]) ? null : $state->e[$s], 'n' => isset($this->placeless[$s]) ? null : $state->n[$s], 'h' => $state->h[$s]];
            if (null !== $state->lat[$s] && null !== $state->lon[$s]) {
                $entry['lat'] = rad2deg($state->lat[$s]);
                $entry['lon'] = rad2deg($state->lon[$s]);
                $entry['ellipsoidalHeight'] = $state->h[$s];
            }
            $entry['sd'] = ['e' => sqrt(max(0.0, $covariance[0][0])), 'n' => sqrt(max(0.0, $covariance[1][1])), 'h' => sqrt(max(0.0, $covariance[2][2]))];
            $entry['covariance'] = $covariance;
            $entry['ellipse'] = ErrorEllipse::of($covariance[0][0], $covariance[0][1], $covariance[1][1], $quantile) + ['confidence' => $this->network->settings->confidence];
            $list[] = $entry;
        }

        return $list;
    }

    /**
     * @return list<array{array<string, mixed>, float}> rows of the result and their part of the sum of squares
     */
    private function judgeObservation(int $i, Observation $o, SelectedInverse $inverse): array
    {
        $parameters = $this->structure->blockParameters[$i];
        $coefficients = $this->coefficients[$i];
        $covariance = $this->covariances[$i];
        $weight = $this->weights[$i];
        $misclosure = $this->misclosure[$i];
        $rowCount = \count($covariance);
        $m = \count($parameters);
        $q = $this->covarianceOf($inverse, $parameters);
        // A Q and A Q A'.
        $aq = $qll = [];
        for ($r = 0; $r < $rowCount; ++$r) {
            $row = $coefficients[$r];
            for ($b = 0; $b < $m; ++$b) {
                $sum = 0.0;
                for ($a = 0; $a < $m; ++$a) {
                    $sum += $row[$a] * $q[$a][$b];
                }
                $aq[$r][$b] = $sum;
            }
            for ($c = 0; $c < $rowCount; ++$c) {
                $sum = 0.0;
                for ($b = 0; $b < $m; ++$b) {
                    $sum += ($aq[$r][$b] ?? 0.0) * $coefficients[$c][$b];
                }
                $qll[$r][$c] = $sum;
            }
        }
        $unit = $o->kind->isAngular() ? 180.0 / \M_PI : 1.0;
        $out = [];
        for ($r = 0; $r < $rowCount; ++$r) {
            $isUsed = $this->used[$i][$r];
            $observed = $this->preanalysis ? null : ($o->components[$r] ?? $o->value);
            $residual = null === $misclosure || $this->preanalysis ? null : -$misclosure[$r];
            $row = ['index' => $i, 'type' => $o->kind->value];
            if (3 === $rowCount) {
                $row['component'] = ['dx', 'dy', 'dz'][$r];
            }
            $square = 0.0;
            $redundancy = 0.0;
            $detectable = $external = $standardized = null;
            if ($isUsed && null !== $weight) {
                // Qvv = C - A Q A'; redundancy number (Qvv P)_ii; bias power (P Qvv P)_ii.
                $pqp = 0.0;
                for ($c = 0; $c < $rowCount; ++$c) {
                    $redundancy += ($covariance[$r][$c] - $qll[$r][$c]) * $weight[$c][$r];
                    for ($d = 0; $d < $rowCount; ++$d) {
                        $pqp += $weight[$r][$c] * ($covariance[$c][$d] - $qll[$c][$d]) * $weight[$d][$r];
                    }
                    if (null !== $residual) {
                        $square += $residual * $weight[$r][$c] * -((array) $misclosure)[$c];
                    }
                }
                $qvv = $covariance[$r][$r] - $qll[$r][$r];
                if ($redundancy < self::UNCONTROLLED || $qvv < self::UNCONTROLLED * $covariance[$r][$r]) {
                    $redundancy = max(0.0, $redundancy);
                    $standardized = null === $residual ? null : 0.0;
                } else {
                    $standardized = null === $residual ? null : $residual / sqrt($qvv);
                    $bias = self::DELTA0 / sqrt($pqp);
                    $detectable = $bias * $unit;
                    $external = $this->externalEffect($i, $q, $coefficients, $weight, $r, $bias);
                }
            } elseif (null !== $residual) {
                // Predicted: independent of the estimate but for the used components of the same vector.
                $variance = $covariance[$r][$r] + $qll[$r][$r];
                if (null !== $weight) {
                    for ($c = 0; $c < $rowCount; ++$c) {
                        for ($d = 0; $d < $rowCount; ++$d) {
                            $variance -= 2.0 * $qll[$r][$c] * $weight[$c][$d] * $covariance[$d][$r];
                        }
                    }
                }
                $standardized = $variance > 0.0 ? $residual / sqrt($variance) : null;
            }
            $adjusted = null;
            if (null !== $residual && null !== $observed) {
                $adjusted = $observed + $residual * $unit;
                if (ObservationKind::Zenith === $o->kind && $observed > 180.0) {
                    $adjusted = $observed - $residual * $unit;
                    $residual = -$residual;
                    $standardized = null === $standardized ? null : -$standardized;
                } elseif (\in_array($o->kind, [ObservationKind::Direction, ObservationKind::Angle, ObservationKind::Azimuth], true)) {
                    $adjusted = $adjusted < 0.0 ? $adjusted + 360.0 : ($adjusted >= 360.0 ? $adjusted - 360.0 : $adjusted);
                }
            }
            $row += [
                'observed' => $observed,
                'adjusted' => $adjusted,
                'residual' => null === $residual ? null : $residual * $unit,
                'sd' => sqrt($covariance[$r][$r]) * $unit,
                'standardized' => $standardized,
                'redundancyNumber' => $redundancy,
                'minimalDetectable' => $detectable,
                'externalEffect' => $external,
                'flagged' => null !== $standardized && abs($standardized) > self::CRITICAL,
                'use' => $isUsed ? 'full' : 'aside',
            ];
            $out[] = [$row, $square];
        }

        return $out;
    }

    /**
     * The largest shift (metres) of a station of this observation caused by a bias as large as the minimal detectable one.
     *
     * @param list<list<float>> $q
     * @param list<list<float>> $coefficients
     * @param list<list<float>> $weight
     */
    private function externalEffect(int $i, array $q, array $coefficients, array $weight, int $component, float $bias): float
    {
        $parameters = $this->structure->blockParameters[$i];
        $m = \count($parameters);
        $load = [];
        for ($a = 0; $a < $m; ++$a) {
            $sum = 0.0;
            foreach ($coefficients as $r => $row) {
                $sum += $row[$a] * $weight[$r][$component];
            }
            $load[] = $sum * $bias;
        }
        $squares = [];
        foreach ($parameters as $a => $p) {
            [$s, $c] = $this->structure->parameterOwner[$p];
            if ($c < 3) {
                $shift = 0.0;
                for ($b = 0; $b < $m; ++$b) {
                    $shift += $q[$a][$b] * $load[$b];
                }
                $squares[$s] = ($squares[$s] ?? 0.0) + $shift * $shift;
            }
        }

        return [] === $squares ? 0.0 : sqrt(max($squares));
    }
}
