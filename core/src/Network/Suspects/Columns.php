<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

use Mensura\Network\ObservationTable;
use Mensura\Network\SolvedNetwork;

/** What the parameters of a cause do to the computed values of a network, at the state of a model. */
final readonly class Columns
{
    public function __construct(private SolvedNetwork $solved)
    {
    }

    /** @return list<array<int, float>> per parameter its effect by row; a weighted coordinate is row -1 - its number */
    public function of(Hypothesis $h, LinearModel $model): array
    {
        $table = $this->solved->structure->table;
        $column = [];
        switch ($h->form) {
            case Form::Value:
                foreach ($h->touched as $i) {
                    $column[$table->row[$i]] = -1.0;
                }

                return [$column];
            case Form::Scale:
                foreach ($h->touched as $i) {
                    $column[$table->row[$i]] = -1e-6 * (float) $this->solved->network->observations[$i]->value;
                }

                return [$column];
            case Form::Components:
                $row = $table->row[$h->touched[0]];

                return [[$row => -1.0], [$row + 1 => -1.0], [$row + 2 => -1.0]];
            case Form::AntennaFrom:
            case Form::AntennaTo:
                $i = $h->touched[0];
                // The mark lies an antenna height below the antenna: adding to the height lowers that end.
                $isTo = Form::AntennaTo === $h->form;
                $up = 9 * ($isTo ? $table->to[$i] : $table->from[$i]) + 6;
                for ($c = 0; $c < 3; ++$c) {
                    $column[$table->row[$i] + $c] = ($isTo ? 1.0 : -1.0) * $model->state->axes[$up + $c];
                }

                return [$column];
            case Form::TargetHeight:
                return [$this->partials($h->touched, $model, 5)];
            case Form::InstrumentHeight:
                return [$this->partials($h->touched, $model, 2)];
            case Form::Centring:
                return [$this->partials($h->touched, $model, 0), $this->partials($h->touched, $model, 1)];
            case Form::Control:
                return $this->control($h, $model);
        }
    }

    /**
     * @param list<int> $observations
     *
     * @return array<int, float>
     */
    private function partials(array $observations, LinearModel $model, int $column): array
    {
        $out = [];
        foreach ($observations as $i) {
            foreach ($this->rows($i, $model) as $r => [, $partials]) {
                if (0.0 !== $partials[$column]) {
                    $out[$this->solved->structure->table->row[$i] + $r] = $partials[$column];
                }
            }
        }

        return $out;
    }

    /** @return list<array{float, list<float>, float}> */
    private function rows(int $i, LinearModel $model): array
    {
        $table = $this->solved->structure->table;

        return $model->equations->of(
            $this->solved->network->observations[$i], $table->set[$i] < 0 ? null : $table->set[$i], $table->instrumentHeight[$i],
            $table->targetHeight[$i],
        );
    }

    /** @return list<array<int, float>> */
    private function control(Hypothesis $h, LinearModel $model): array
    {
        $table = $this->solved->structure->table;
        $station = $this->solved->network->stations[$h->station];
        $columns = [];
        foreach ($h->components as $c) {
            $column = [];
            if (!$station->fixed[$c]) {
                foreach ($this->solved->weightedCoordinates() as $k => [$s, $component]) {
                    if ($s === $h->station && $component === $c) {
                        $column[-1 - $k] = -1.0;
                    }
                }
                $columns[] = $column;
                continue;
            }
            foreach ($h->touched as $i) {
                $block = $table->from[$i] === $h->station ? 0 : ($table->to[$i] === $h->station ? 3 : 6);
                if (ObservationTable::HEIGHT_DIFFERENCE === $table->kind[$i] && 2 !== $c) {
                    continue;
                }
                foreach ($this->rows($i, $model) as $r => [, $partials]) {
                    if (0.0 !== ($partials[$block + $c] ?? 0.0) && $this->solved->used[$i][$r]) {
                        $column[$table->row[$i] + $r] = $partials[$block + $c];
                    }
                }
            }
            $columns[] = $column;
        }

        return $columns;
    }
}
