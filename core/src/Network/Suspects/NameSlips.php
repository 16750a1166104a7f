<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

use Mensura\Network\ObservationTable;
use Mensura\Network\SolvedNetwork;

/**
 * Targets whose names could be wrong: two of a setup exchanged, or one that was really another mark.
 *
 * Looked for about a robust state, where the sights to a wrong name stand far out and fit another mark; each that fits is
 * then solved with the names put right.
 */
final readonly class NameSlips
{
    /** A target whose sights fit worse than this, in standard deviations, can have a wrong name. */
    private const MISFIT = 5.0;

    /** The other name must leave no more than this part of the misfit. */
    private const LEFT = 0.25;

    /** Others proposed for a target at most. */
    private const OTHERS = 2;

    private const PROPOSED = 8;

    public function __construct(private SolvedNetwork $solved, private Setups $setups)
    {
    }

    /**
     * @return list<array{cause: string, names: array<string, ?string>, renamed: array<int, array{string, float}>}> best first;
     *     per observation its real target and the target height that goes with it
     */
    public function proposals(LinearModel $model): array
    {
        $proposals = [];
        foreach ($this->setups->list as $setup) {
            $groups = [];
            foreach ($setup['observations'] as $i) {
                $o = $this->solved->network->observations[$i];
                if (null === $o->back) {
                    $groups["t$o->to"][] = $i;
                }
            }
            $misfit = [];
            foreach ($groups as $target => $list) {
                $misfit[$target] = $this->misfit($model, $list, null);
            }
            $names = ['from' => $setup['from'], 'set' => $setup['set']];
            $doubtful = array_keys(array_filter($misfit, static fn (float $m): bool => $m > self::MISFIT ** 2));
            foreach ($doubtful as $a => $target) {
                foreach ($this->others($model, $groups[$target], $setup['from'], substr($target, 1), $misfit[$target]) as [$other, $left]) {
                    $renamed = [];
                    foreach ($groups[$target] as $i) {
                        $renamed[$i] = [$other, $this->solved->network->observations[$i]->targetHeight];
                    }
                    $proposals[] = [$misfit[$target] - $left, [
                        'cause' => 'wrong-target',
                        'names' => $names + ['to' => substr($target, 1), 'other' => $other], 'renamed' => $renamed,
                    ]];
                }
                foreach (\array_slice($doubtful, $a + 1) as $second) {
                    [$renamed, $left] = $this->exchanged($model, $groups[$target], $groups[$second]);
                    $before = $misfit[$target] + $misfit[$second];
                    if ($left < self::LEFT * $before) {
                        $proposals[] = [$before - $left, [
                            'cause' => 'swapped-targets', 'names' => $names + ['to' => substr($target, 1), 'other' => substr($second, 1)],
                            'renamed' => $renamed,
                        ]];
                    }
                }
            }
        }
        usort($proposals, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return array_column(\array_slice($proposals, 0, self::PROPOSED), 1);
    }

    /**
     * @param list<int> $first
     * @param list<int> $second
     *
     * @return array{array<int, array{string, float}>, float}
     */
    private function exchanged(LinearModel $model, array $first, array $second): array
    {
        $observations = $this->solved->network->observations;
        $renamed = [];
        $left = 0.0;
        foreach ([[$first, $second], [$second, $first]] as [$own, $other]) {
            $raised = array_values(array_filter($other, fn (int $i): bool => $this->isRaised($i)));
            $o = $observations[$raised[0] ?? $other[0]];
            foreach ($own as $i) {
                $renamed[$i] = [$o->to, $o->targetHeight];
            }
            $left += $this->misfit($model, $own, $o->to, $o->targetHeight);
        }

        return [$renamed, $left];
    }

    private function isRaised(int $i): bool
    {
        $kind = $this->solved->structure->table->kind[$i];

        return ObservationTable::ZENITH === $kind || ObservationTable::SLOPE_DISTANCE === $kind;
    }

    /**
     * @param list<int> $list
     *
     * @return list<array{string, float}> marks that the sights fit, and the misfit left
     */
    private function others(LinearModel $model, array $list, string $from, string $to, float $misfit): array
    {
        $fits = [];
        foreach ($this->solved->network->stations as $station) {
            if ($station->id === $from || $station->id === $to) {
                continue;
            }
            $left = $this->misfit($model, $list, $station->id, null, self::LEFT * $misfit);
            if ($left < self::LEFT * $misfit) {
                $fits[] = [$station->id, $left];
            }
        }
        usort($fits, static fn (array $a, array $b): int => $a[1] <=> $b[1]);

        return \array_slice($fits, 0, self::OTHERS);
    }

    /**
     * Sum of squared standardized misclosures of sights, as recorded or to another mark.
     *
     * @param list<int> $list
     */
    private function misfit(LinearModel $model, array $list, ?string $to, ?float $targetHeight = null, float $limit = \INF): float
    {
        $table = $this->solved->structure->table;
        $index = $this->solved->network->stationIndex;
        $state = $model->state;
        $sum = 0.0;
        foreach ($list as $i) {
            $row = $table->row[$i];
            $w = $model->linearization->misclosure[$row];
            if (null !== $to) {
                $from = $table->from[$i];
                $s = $index[$to];
                if (abs($state->e[$s] - $state->e[$from]) + abs($state->n[$s] - $state->n[$from]) < 1e-3) {
                    return \INF;
                }
                $o = $this->solved->network->observations[$i];
                $renamed = new \Mensura\Observation\Observation($o->kind, $o->from, $to, $o->value, set: $o->set);
                [[$computed]] = $model->equations->of(
                    $renamed, $table->set[$i] < 0 ? null : $table->set[$i], $table->instrumentHeight[$i],
                    $this->isRaised($i) ? $targetHeight ?? $table->targetHeight[$i] : 0.0,
                );
                $w = $table->value[$row] - $computed;
                if ($o->kind->isAngular()) {
                    $w -= 2.0 * \M_PI * round($w / (2.0 * \M_PI));
                }
            }
            $sum += $w * $w / $this->solved->weights->variance[$i];
            if ($sum > $limit) {
                return $sum;
            }
        }

        return $sum;
    }
}
