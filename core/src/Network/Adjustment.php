<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;
use Mensura\Observation\Observation;
use Mensura\Reference\OutsideProjection;

/**
 * Least-squares adjustment of a network by iterated linearization (Gauss-Newton) with sparse normal equations.
 *
 * Reliability after Baarda (1968), A testing procedure for use in geodetic networks: redundancy numbers from
 * Qvv P, minimal detectable bias with delta0 = 4.13 (alpha 0.001 two-sided, power 0.80). Screening is his
 * data snooping repeated, one observation at a time.
 *
 * @phpstan-import-type Relative from RelativeEllipses
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
    private const REFACTOR = 5e-2;

    /** What the next step would still move, judged by the last two, is not worth it below this, metres. */
    private const SETTLED = 1e-8;

    /** Precisions are those of the place where the factor was made when the stations are within this distance of it, metres. */
    private const EXACT = 1e-5;

    /** @var array<int, array{bool, bool, bool}> */
    private array $used;

    private NetworkStructure $structure;
    private NetworkState $state;
    private ObservationEquations $equations;

    /** @var list<?float> given coordinates, 3 per station */
    private array $given;

    private Linearization $linearization;
    private NormalEquations $normals;
    private Weights $weights;

    /** @var array<int, true> stations whose plan nothing gives or touches */
    private array $placeless;

    private ?Datum $datum = null;
    private ?FreeDatum $freeDatum = null;

    /** @var list<array{index: int, component?: string, pass: int, standardized: float, reason: string}> */
    private array $screened = [];

    private ?Judgement $judgement = null;

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
        $this->weights = new Weights($network, $this->equations);
        foreach ($this->used as $i => $used) {
            $this->weights->set($i, $used);
        }
        $this->linearization = new Linearization($this->structure, $this->equations, $preanalysis);
        $this->normals = new NormalEquations($this->structure);
        if ([] === array_filter($this->weights->weight)) {
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
     * @param ?int   $most        so many at most
     */
    public function run(?float $screenLimit = null, ?int $most = null): AdjustmentResult
    {
        try {
            return $this->solveAndScreen($screenLimit, $most);
        } catch (OutsideProjection) {
            throw new UnusableInput(
                'observations',
                'the adjustment does not converge: stations move out of the projection; look for a gross blunder or a '
                    .'wrong approximate coordinate',
            );
        }
    }

    /** @return list<Relative> as {@see RelativeEllipses::of()}, of what {@see run()} reached */
    public function relative(): array
    {
        return $this->judgement?->relative() ?? [];
    }

    /** The network at the place {@see run()} reached, for questions beyond the adjustment itself. */
    public function solved(AdjustmentResult $result): SolvedNetwork
    {
        return new SolvedNetwork(
            $this->network, $this->structure, $this->state, $this->used, $this->weights, $this->given, $this->datum->held ?? [],
            $this->free, $result,
        );
    }

    private function solveAndScreen(?float $screenLimit, ?int $most): AdjustmentResult
    {
        [$converged, $iterations, $inverse] = $this->solve();
        $result = $this->judge($converged, $iterations, $inverse);
        for ($pass = 1; null !== $screenLimit && !$this->preanalysis && (null === $most || $pass <= $most); ++$pass) {
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
            $this->weights->set($worst['index'], $this->used[$worst['index']]);
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

    /** Each set turned to the mean of what its directions say. */
    private function orient(): void
    {
        $table = $this->structure->table;
        $sum = [];
        foreach ($table->set as $i => $set) {
            if ($set < 0) {
                continue;
            }
            $this->state->orientation[$set] ??= 0.0;
            if (!$this->used[$i][0] || null === $this->network->observations[$i]->value) {
                continue;
            }
            [[$computed]] = $this->equations->of($this->network->observations[$i], null);
            $turn = $computed - $table->value[$table->row[$i]];
            $sum[$set] ??= [0.0, 0.0];
            $sum[$set][0] += cos($turn);
            $sum[$set][1] += sin($turn);
        }
        foreach ($sum as $set => [$c, $s]) {
            $this->state->orientation[$set] = atan2($s, $c);
        }
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
     * @return array{bool, int, list<float>}
     */
    private function solve(): array
    {
        $structure = $this->structure;
        $cholesky = $structure->cholesky;
        $max = $this->preanalysis ? 1 : $this->network->settings->maxIterations;
        $first = [] === $this->linearization->misclosure;
        if ($first) {
            $this->orient();
        }
        $sinceFactor = $previous = $left = \INF;
        $converged = $this->preanalysis;
        $iteration = 0;
        while ($iteration < $max) {
            ++$iteration;
            $this->report(\sprintf('iteration %d', $iteration), min(0.6, 0.1 + 0.1 * $iteration));
            $this->linearization->at($this->state);
            $refactor = $sinceFactor > self::REFACTOR;
            $this->assemble($refactor);
            if ($refactor) {
                if ($first) {
                    $this->datum = new Datum(
                        $structure, $this->state, $this->given, $this->weights->weight,
                        fn (): iterable => $this->usedRows(),
                    );
                    $first = false;
                }
                $this->factor();
                $sinceFactor = 0.0;
            }
            if ($this->preanalysis) {
                break;
            }
            $largest = $this->step();
            if (!($largest < 1e7)) {
                throw new UnusableInput('observations', \sprintf(
                    'the adjustment does not converge: stations move by more than %.0f km; look for a gross blunder or a '
                        .'wrong approximate coordinate',
                    1e4,
                ));
            }
            $sinceFactor += $largest;
            $left = $largest < $previous ? $largest * $largest / $previous : $largest;
            $previous = $largest;
            if ($largest < self::CONVERGED) {
                $converged = true;
                break;
            }
        }
        // The precisions, and one last exact step, at the place that was reached.
        $this->report('precisions', 0.65);
        if (!$this->preanalysis) {
            $this->linearization->at($this->state);
            if ($sinceFactor > self::EXACT || $left > self::SETTLED) {
                $this->assemble($sinceFactor > self::EXACT);
            }
            if ($sinceFactor > self::EXACT) {
                $this->factor();
            }
            if ($left > self::SETTLED) {
                $this->step();
                $this->linearization->at($this->state);
            }
        }
        $inverse = $cholesky->selectedInverse();
        $this->freeDatum?->prepareCovariance($cholesky);

        return [$converged, $iteration, $inverse];
    }

    private function assemble(bool $withMatrix): void
    {
        $this->normals->assemble($this->linearization, $this->weights, $withMatrix, $this->free ? [] : $this->weightedCoordinates());
    }

    /** @return float the largest shift of a coordinate, metres */
    private function step(): float
    {
        $shift = $this->structure->cholesky->solve($this->normals->rhs);

        return $this->state->move(
            $this->structure->parameterOwner, null === $this->freeDatum ? $shift : $this->freeDatum->transform($shift, $this->moved()),
        );
    }

    private function factor(): void
    {
        $this->freeDatum = $this->datum?->renew();
        $held = $this->datum->held ?? [];
        $null = $this->structure->cholesky->factor($this->normals->normal, $held);
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
        $this->structure->cholesky->factor($this->normals->normal, $held, 1e-15);
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
        $structure = $this->structure;
        foreach ($this->weights->weight as $i => $weight) {
            if (0.0 === $weight) {
                continue;
            }
            $first = $structure->patternStart[$structure->pattern[$i]];
            $count = $structure->patternStart[$structure->pattern[$i] + 1] - $first;
            $unknowns = \array_slice($structure->unknown, $first, $count);
            for ($r = 0, $start = $structure->coefficientStart[$i]; $start < $structure->coefficientStart[$i + 1]; ++$r, $start += $count) {
                if ($this->used[$i][$r]) {
                    yield [$unknowns, \array_slice($this->linearization->coefficient, $start, $count)];
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

    /** @param list<float> $inverse */
    private function judge(bool $converged, int $iterations, array $inverse): AdjustmentResult
    {
        $this->report('statistics', 0.75);
        $this->judgement = new Judgement(
            $this->structure, $this->state, $this->used, $this->weights, $this->linearization,
            $this->free ? [] : iterator_to_array($this->weightedCoordinates(), false), $this->placeless, $inverse,
            $this->freeDatum, $this->datum->defect ?? 0, $this->preanalysis,
        );

        return $this->judgement->result($converged, $iterations, $this->screened);
    }
}
