<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Network\NetworkDefinition;
use Mensura\Network\NetworkState;
use Mensura\Network\SolvedNetwork;
use Mensura\Network\StartingPlaces;
use Mensura\Observation\Station;
use Mensura\Reference\OutsideProjection;

/**
 * Ranks the causes that could explain what does not fit in a network.
 *
 * Every cause is one to three parameters more, or names, digits or a sign put right; nothing is set aside. Where blunders
 * are small the least-squares solution serves for all of them (Baarda's data snooping with vectors of any shape); where
 * they have drawn the solution away, causes are tested about a robust state ({@see RobustState}), and the best of them
 * solved to the end.
 */
final class SuspectSearch
{
    /** With no residual beyond this many standard deviations the solution is near enough to test from. */
    private const NEAR = 6.0;

    /** So many of the best are solved to the end when it is not. */
    private const SOLVED = 24;

    private const STEPS = 7;

    /** Two statistics within this part explain equally. */
    private const EQUAL = 0.01;

    /** A digit put right explains as well as a free value within this many standard deviations, and says more above the second. */
    private const DIGIT_FITS = 3.0;
    private const DIGIT_TELLS = 10.0;

    private readonly Setups $setups;
    private readonly Columns $columns;
    private readonly float $sumSquares;
    private int $tried = 0;

    /** @param ?\Closure(string, float): void $progress may throw to cancel */
    public function __construct(private readonly SolvedNetwork $solved, private readonly ?\Closure $progress = null)
    {
        $this->setups = new Setups($solved);
        $this->columns = new Columns($solved);
        $this->sumSquares = $solved->result->globalTest['statistic'] ?? 0.0;
    }

    /** @return list<Suspect> best first */
    public function best(int $count = 10): array
    {
        if ($this->solved->result->redundancy < 1) {
            return [];
        }
        $isFar = !$this->solved->result->converged || $this->largestResidual() > self::NEAR;
        $state = $isFar ? $this->robustState() : clone $this->solved->state;
        $model = new LinearModel($this->solved, $state);
        $model->linearize();
        $model->factor();
        $this->report('causes', 0.9);
        $found = [];
        foreach ((new Hypotheses($this->solved, $this->setups))->all() as $hypothesis) {
            if (0 === ++$this->tried % 200) {
                $this->report(\sprintf('causes, %d tried', $this->tried), 0.9);
            }
            if (null !== $tested = $this->test($hypothesis, $model)) {
                $found[] = $tested;
            }
        }
        $slips = $isFar || $this->largestResidual() > 4.0 ? (new NameSlips($this->solved, $this->setups))->proposals($model) : [];
        if ($isFar) {
            usort($found, static fn (array $a, array $b): int => abs($b[1]->statistic()) <=> abs($a[1]->statistic()));
            foreach (\array_slice($found, 0, self::SOLVED) as $k => [$hypothesis, $estimate]) {
                $this->report('causes solved to the end', 0.9 + 0.08 * $k / self::SOLVED);
                $found[$k] = $this->refine($hypothesis, $estimate, $state);
            }
            $found = \array_slice($found, 0, self::SOLVED);
        }
        $suspects = [];
        foreach ($found as [$hypothesis, $estimate]) {
            array_push($suspects, ...$this->suspects($hypothesis, $estimate));
        }
        foreach ($slips as $slip) {
            $this->report('names put right', 0.99);
            if (null !== $suspect = $this->renamed($slip, $state)) {
                $suspects[] = $suspect;
            }
        }

        return \array_slice(self::ranked($suspects), 0, $count);
    }

    /** How many causes the last search tested. */
    public function tried(): int
    {
        return $this->tried;
    }

    private function report(string $stage, float $fraction): void
    {
        if (null !== $this->progress) {
            ($this->progress)($stage, $fraction);
        }
    }

    private function largestResidual(): float
    {
        $largest = 0.0;
        foreach ($this->solved->result->observations as $row) {
            if ('full' === $row['use'] && null !== $row['standardized']) {
                $largest = max($largest, abs($row['standardized']));
            }
        }

        return $largest;
    }

    private function robustState(): NetworkState
    {
        try {
            return RobustState::of($this->solved, StartingPlaces::find($this->solved->network)->state);
        } catch (OutsideProjection|UnusableInput) {
            return clone $this->solved->state;
        }
    }

    /** @return ?array{Hypothesis, Estimate} */
    private function test(Hypothesis $hypothesis, LinearModel $model): ?array
    {
        if (Form::Value === $hypothesis->form && 1 === \count($hypothesis->touched)) {
            $estimate = $model->estimateReading($hypothesis->touched[0]);

            return null === $estimate ? null : [$hypothesis, $estimate];
        }
        $columns = $this->columns->of($hypothesis, $model);
        $estimate = $model->estimate($columns);
        if (null === $estimate && Form::Control === $hypothesis->form && \count($columns) > 1) {
            // Only the coordinates that something else controls.
            $keep = array_keys(array_filter($columns, static fn (array $column): bool => null !== $model->estimate([$column])));
            if ([] === $keep || \count($keep) === \count($columns)) {
                return null;
            }
            $hypothesis = new Hypothesis(
                $hypothesis->cause, $hypothesis->names, $hypothesis->form, $hypothesis->touched, $hypothesis->unit,
                array_map(static fn (int $k): string => $hypothesis->parts[$k], $keep), $hypothesis->station,
                array_map(static fn (int $k): int => $hypothesis->components[$k], $keep),
            );
            $estimate = $model->estimate($this->columns->of($hypothesis, $model));
        }

        return null === $estimate ? null : [$hypothesis, $estimate];
    }

    /**
     * Solves the network with a cause's parameters in it, to the end.
     *
     * @return array{Hypothesis, Estimate}
     */
    private function refine(Hypothesis $hypothesis, Estimate $estimate, NetworkState $start): array
    {
        $table = $this->solved->structure->table;
        $instrument = $table->instrumentHeight;
        $target = $table->targetHeight;
        $value = $table->value;
        $state = clone $start;
        $model = new LinearModel($this->solved, $state);
        $total = array_fill(0, \count($estimate->delta), 0.0);
        $last = $estimate;
        $moved = \INF;
        $after = null;
        for ($k = 0; $k < self::STEPS; ++$k) {
            $model->linearize($this->apply($hypothesis, $total, $state, $start, [$instrument, $target, $value]));
            if (Form::Centring === $hypothesis->form) {
                foreach ($this->columns->of($hypothesis, $model) as $j => $column) {
                    foreach ($column as $row => $effect) {
                        $model->linearization->misclosure[$row] -= $effect * $total[$j];
                    }
                }
            }
            $after = $model->sumSquares();
            if ($moved < 1e-6 || $k > 0 && !($moved < 1e5)) {
                break;
            }
            $model->factor();
            $columns = $this->columns->of($hypothesis, $model);
            $next = $model->estimate($columns);
            if (null === $next) {
                break;
            }
            foreach ($next->delta as $j => $d) {
                $total[$j] += $d;
            }
            $moved = $model->stepWith($columns, $next);
            $last = new Estimate($total, $next->covariance, 0.0);
        }
        $table->instrumentHeight = $instrument;
        $table->targetHeight = $target;
        $table->value = $value;

        return [$hypothesis, new Estimate($last->delta, $last->covariance, max(0.0, $this->sumSquares - (float) $after), $after)];
    }

    /**
     * @param list<float>                                         $total
     * @param array{list<float>, list<float>, list<float>} $recorded
     *
     * @return array<int, float> what is to be added to weighted coordinates
     */
    private function apply(Hypothesis $h, array $total, NetworkState $state, NetworkState $start, array $recorded): array
    {
        $table = $this->solved->structure->table;
        [$instrument, $target, $value] = $recorded;
        $shifted = [];
        switch ($h->form) {
            case Form::TargetHeight:
                foreach ($h->touched as $i) {
                    $target[$i] += $total[0];
                }
                $table->targetHeight = $target;
                break;
            case Form::InstrumentHeight:
                foreach ($h->touched as $i) {
                    $instrument[$i] += $total[0];
                }
                $table->instrumentHeight = $instrument;
                break;
            case Form::Value:
                foreach ($h->touched as $i) {
                    $value[$table->row[$i]] += $total[0];
                }
                $table->value = $value;
                break;
            case Form::Scale:
                foreach ($h->touched as $i) {
                    $value[$table->row[$i]] += 1e-6 * $total[0] * $value[$table->row[$i]];
                }
                $table->value = $value;
                break;
            case Form::Components:
            case Form::AntennaFrom:
            case Form::AntennaTo:
                $i = $h->touched[0];
                $model = new LinearModel($this->solved, $state);
                foreach ($this->columns->of($h, $model) as $j => $column) {
                    foreach ($column as $row => $effect) {
                        $value[$row] -= $effect * $total[$j];
                    }
                }
                $table->value = $value;
                break;
            case Form::Control:
                $station = $this->solved->network->stations[$h->station];
                foreach ($h->components as $j => $c) {
                    if (!$station->fixed[$c]) {
                        $shifted[3 * $h->station + $c] = $total[$j];
                    } elseif (0 === $c) {
                        $state->e[$h->station] = $start->e[$h->station] + $total[$j];
                    } elseif (1 === $c) {
                        $state->n[$h->station] = $start->n[$h->station] + $total[$j];
                    } else {
                        $state->h[$h->station] = $start->h[$h->station] + $total[$j];
                    }
                }
                $state->refresh();
                break;
            case Form::Centring:
        }

        return $shifted;
    }

    /** @return list<Suspect> the cause, and what is nested in it: a digit or a sign */
    private function suspects(Hypothesis $h, Estimate $estimate): array
    {
        $size = $estimate->size() * $h->unit;
        $sd = $estimate->sd() * abs($h->unit);
        $components = [];
        foreach ($h->parts as $j => $part) {
            $components[$part] = $estimate->delta[$j];
        }
        if (Form::AntennaTo === $h->form || Form::AntennaFrom === $h->form) {
            // What the height does to the vector: its mark lies lower by as much.
            $up = 9 * $this->solved->network->stationIndex[(string) $h->names['end']] + 6;
            foreach (['dx', 'dy', 'dz'] as $c => $part) {
                $components[$part] = (Form::AntennaTo === $h->form ? -1.0 : 1.0) * $this->solved->state
                    ->axes[$up + $c] * $estimate->delta[0];
            }
        }
        if (Form::Control === $h->form) {
            $components += ['de' => 0.0, 'dn' => 0.0, 'dh' => 0.0];
        }
        $after = $estimate->after ?? max(0.0, $this->sumSquares - $estimate->fall);
        $list = [new Suspect(
            $h->cause, $h->names, $size, $sd, $estimate->statistic(),
            $this->explains($estimate->after, abs($estimate->statistic())), $this->factor($after, \count($estimate->delta)),
            Suggestion::of($h, $size, $sd), $components, \count($estimate->delta), $h->touched,
            1 === \count($estimate->delta) ? Suggestion::change($h, $size, $sd) : null,
        )];
        if (null === $h->recorded) {
            return $list;
        }
        if ('distance' === $h->cause && null !== $slip = DigitSlips::nearest($h->recorded, $size)) {
            [$change, $reading] = $slip;
            if (abs($change - $size) <= self::DIGIT_FITS * $sd) {
                $tells = abs($change) > self::DIGIT_TELLS * $sd;
                $list[] = $this->nested(
                    $h, 'digits', $change, $size, $sd, $after,
                    \sprintf('%s for %s', $reading, self::written($h->recorded, $reading)), $tells ? 0 : 1,
                );
            }
        }
        if ('height-difference' === $h->cause) {
            $change = -2.0 * $h->recorded;
            if (abs($change - $size) < abs($size)) {
                $list[] = $this->nested(
                    $h, 'height-difference-sign', $change, $size, $sd, $after,
                    \sprintf('%.4f m for %.4f', -$h->recorded, $h->recorded), 0,
                );
            }
        }

        return $list;
    }

    /** What a change that is given explains, when the one that explains best is known: d'Md less (d - d0)'M(d - d0). */
    private function nested(
        Hypothesis $h, string $cause, float $change, float $size, float $sd, float $after, string $suggests, int $parameters,
    ): Suspect {
        $worse = (($size - $change) / $sd) ** 2;
        $statistic = sqrt(max(0.0, ($size / $sd) ** 2 - $worse));

        return new Suspect(
            $cause, $h->names, $change, null, $statistic, $this->explains($after + $worse, $statistic),
            $this->factor($after + $worse, 0), $suggests, [],
            $parameters, $h->touched, $change,
        );
    }

    private static function written(float $recorded, string $like): string
    {
        return number_format($recorded, \strlen($like) - (int) strpos($like, '.') - 1, '.', '');
    }

    /** Where a blunder bends the geometry, an estimate over its standard deviation says more than the misfit it takes away. */
    private function explains(?float $after, float $statistic): float
    {
        return null === $after ? $statistic : min($statistic, sqrt(max(0.0, $this->sumSquares - $after)));
    }

    private function factor(float $sumSquares, int $parameters): ?float
    {
        $redundancy = $this->solved->result->redundancy - $parameters;

        return $redundancy > 0 ? $sumSquares / $redundancy : null;
    }

    /**
     * @param array{cause: string, names: array<string, ?string>, renamed: array<int, array{string, float}>} $slip
     */
    private function renamed(array $slip, NetworkState $state): ?Suspect
    {
        $network = $this->solved->network;
        $observations = $network->observations;
        foreach ($slip['renamed'] as $i => [$to, $targetHeight]) {
            $observations[$i] = $observations[$i]->with(['to' => $to, 'targetHeight' => $targetHeight]);
        }
        $stations = [];
        foreach ($network->stations as $s => $station) {
            $stations[] = new Station(
                $station->id, $station->e ?? $state->e[$s], $station->n ?? $state->n[$s],
                $station->h ?? $state->h[$s], $station->fixed, $station->sd,
            );
        }
        try {
            $result = (new Adjustment(
                new NetworkDefinition($network->frame, $network->settings, $stations, array_values($observations)), $this->solved->free,
            ))->run();
        } catch (UnusableInput) {
            return null; // a mark that nothing else reaches cannot be tested
        }
        $after = $result->globalTest['statistic'] ?? null;
        if (null === $after || !$result->converged || $after >= $this->sumSquares) {
            return null;
        }
        $fall = $this->sumSquares - $after;

        return new Suspect(
            $slip['cause'], $slip['names'], null, null, sqrt($fall), sqrt($fall), $result->varianceFactor,
            'swapped-targets' === $slip['cause'] ? \sprintf('%s and %s exchanged', $slip['names']['to'], $slip['names']['other'])
                : \sprintf('%s for %s', $slip['names']['other'], $slip['names']['to']),
            [], 0, array_keys($slip['renamed']), null, $slip['renamed'],
        );
    }

    /**
     * By what they explain; of those that explain equally the simplest first: fewest parameters, then fewest observations touched.
     *
     * @param list<Suspect> $suspects
     *
     * @return list<Suspect>
     */
    private static function ranked(array $suspects): array
    {
        usort($suspects, static fn (Suspect $a, Suspect $b): int => $b->explains <=> $a->explains);
        $ranked = [];
        while ([] !== $suspects) {
            $limit = (1.0 - self::EQUAL) * $suspects[0]->explains;
            $equal = array_values(array_filter($suspects, static fn (Suspect $s): bool => $s->explains >= $limit));
            usort($equal, static fn (Suspect $a, Suspect $b): int => [$a->parameters, \count($a->touched), -$a->explains]
                <=> [$b->parameters, \count($b->touched), -$b->explains]);
            array_push($ranked, ...$equal);
            $suspects = \array_slice($suspects, \count($equal));
        }

        return $ranked;
    }
}
