<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

use Mensura\Network\ObservationTable;
use Mensura\Network\SolvedNetwork;

/** The causes that are tested by adding parameters: every one that the observations of a network allow. */
final readonly class Hypotheses
{
    private const DEGREES = 180.0 / \M_PI;

    public function __construct(private SolvedNetwork $solved, private Setups $setups)
    {
    }

    /** @return \Generator<Hypothesis> */
    public function all(): \Generator
    {
        foreach ($this->setups->list as $setup) {
            yield from $this->ofSetup($setup['observations'], ['from' => $setup['from'], 'set' => $setup['set']]);
        }
        $table = $this->solved->structure->table;
        foreach ($this->solved->network->observations as $i => $o) {
            if (!$this->solved->used[$i][0]) {
                continue;
            }
            if (ObservationTable::HEIGHT_DIFFERENCE === $table->kind[$i]) {
                yield new Hypothesis(
                    'height-difference', ['from' => $o->from, 'to' => $o->to, 'index' => $i], Form::Value, [$i], recorded: $o->value,
                );
            } elseif (ObservationTable::VECTOR === $table->kind[$i] && $this->solved->used[$i] === [true, true, true]) {
                $names = ['from' => $o->from, 'to' => $o->to, 'index' => $i];
                yield new Hypothesis('vector', $names, Form::Components, [$i], 1.0, ['dx', 'dy', 'dz']);
                yield new Hypothesis('antenna-height', $names + ['end' => $o->to], Form::AntennaTo, [$i]);
                if (!$this->solved->network->frame->isPlane()) {
                    yield new Hypothesis('antenna-height', $names + ['end' => $o->from], Form::AntennaFrom, [$i]);
                }
            }
        }
        yield from $this->control();
    }

    /**
     * @param list<int>                   $observations
     * @param array<string, ?string>      $names
     *
     * @return \Generator<Hypothesis>
     */
    private function ofSetup(array $observations, array $names): \Generator
    {
        $table = $this->solved->structure->table;
        $network = $this->solved->network;
        $directions = $distances = $raised = $targets = [];
        foreach ($observations as $i) {
            $o = $network->observations[$i];
            $single = $names + ['to' => $o->to, 'index' => $i];
            switch ($table->kind[$i]) {
                case ObservationTable::DIRECTION:
                    $directions[] = $i;
                    yield new Hypothesis('direction', $single, Form::Value, [$i], self::DEGREES, recorded: $o->value);
                    break;
                case ObservationTable::AZIMUTH:
                    yield new Hypothesis('azimuth', $single, Form::Value, [$i], self::DEGREES, recorded: $o->value);
                    break;
                case ObservationTable::ANGLE:
                    yield new Hypothesis('angle', $single + ['back' => $o->back], Form::Value, [$i], self::DEGREES, recorded: $o->value);
                    break;
                case ObservationTable::ZENITH:
                    yield new Hypothesis('zenith', $single, Form::Value, [$i], self::DEGREES, recorded: $o->value);
                    break;
                default:
                    $distances[] = $i;
                    yield new Hypothesis('distance', $single, Form::Value, [$i], recorded: $o->value);
            }
            if (ObservationTable::ZENITH === $table->kind[$i] || ObservationTable::SLOPE_DISTANCE === $table->kind[$i]) {
                $raised[] = $i;
                $targets["t$o->to"][] = $i;
            }
        }
        // A slip of the last direction alone, or of all but the first, is that one direction.
        foreach (\array_slice($directions, 1, null, true) as $k => $i) {
            $slipped = \array_slice($directions, $k);
            if (\count($slipped) > 1) {
                yield new Hypothesis(
                    'orientation-slip', $names + ['to' => $network->observations[$i]->to, 'index' => $i], Form::Value,
                    $slipped, self::DEGREES,
                );
            }
        }
        foreach ($targets as $list) {
            $o = $network->observations[$list[0]];
            $heights = array_map(static fn (int $i): float => $table->targetHeight[$i], $list);
            yield new Hypothesis(
                'target-height', $names + ['to' => $o->to], Form::TargetHeight, $list,
                recorded: max($heights) - min($heights) < 1e-9 ? $heights[0] : null,
            );
        }
        if ([] !== $raised) {
            $heights = array_map(static fn (int $i): float => $table->instrumentHeight[$i], $raised);
            yield new Hypothesis(
                'instrument-height', $names, Form::InstrumentHeight, $raised,
                recorded: max($heights) - min($heights) < 1e-9 ? $heights[0] : null,
            );
        }
        if (\count($distances) > 1) {
            yield new Hypothesis('prism-constant', $names, Form::Value, $distances);
            yield new Hypothesis('distance-scale', $names, Form::Scale, $distances);
        }
        if (\count($observations) > 2) {
            yield new Hypothesis('setup-centring', $names, Form::Centring, $observations, 1.0, ['de', 'dn']);
        }
    }

    /** @return \Generator<Hypothesis> */
    private function control(): \Generator
    {
        if ($this->solved->free) {
            return;
        }
        $touching = [];
        $table = $this->solved->structure->table;
        foreach ($table->kind as $i => $kind) {
            foreach ([$table->from[$i], $table->to[$i], $table->back[$i]] as $s) {
                if ($s >= 0 && \in_array(true, $this->solved->used[$i], true)) {
                    $touching[$s][] = $i;
                }
            }
        }
        foreach ($this->solved->network->stations as $s => $station) {
            $components = [];
            for ($c = 0; $c < 3; ++$c) {
                if ($station->fixed[$c] || null !== $station->sd[$c]) {
                    $components[] = $c;
                }
            }
            if ([] !== $components && isset($touching[$s])) {
                yield new Hypothesis(
                    'control', ['station' => $station->id], Form::Control, $touching[$s], 1.0,
                    array_map(static fn (int $c): string => ['de', 'dn', 'dh'][$c], $components), $s, $components,
                );
            }
        }
    }
}
