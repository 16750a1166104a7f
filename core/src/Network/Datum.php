<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;

/** What fixes a network in its frame: found out once, before the first factorization. */
final class Datum
{
    /** @var array<int, true> unknowns held to give a free network a datum to compute in */
    public array $held = [];

    /** How many ways a free network can move. */
    public int $defect = 0;

    /** @var array<int, true> modes that are shifts in Cartesian space */
    private array $cartesianModes = [];

    /** @var list<array{int, array<int, float>}> mode number and its constraint */
    private array $freeModes = [];

    /** @var array<int, true> stations of the free network */
    private array $stations = [];

    /**
     * @param list<?float>                                             $given    e, n, h per station
     * @param list<float>                                              $weights  per observation, 0 when unused
     * @param \Closure(): iterable<array{list<int>, list<float>}>     $usedRows unknowns and coefficients
     *
     * @throws UnusableInput datum defect, or a free network that falls apart
     */
    public function __construct(
        private readonly NetworkStructure $structure,
        private readonly NetworkState $state,
        private readonly array $given,
        private readonly array $weights,
        private readonly \Closure $usedRows,
    ) {
        $this->establish();
    }

    /** Finds in which ways each connected part can move unnoticed; an error, or for a free network its datum. */
    private function establish(): void
    {
        $parts = $this->connectedParts();
        $held = [];
        foreach ($parts as $stations) {
            $modes = DatumModes::of($this->structure, $stations, $this->state->e, $this->state->n, $this->state->h);
            $rows = function () use ($stations): iterable {
                foreach (($this->usedRows)() as [$parameters, $row]) {
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
            // In a plane they are the same modes over again.
            $shifts = $this->structure->network->frame->isPlane() ? [] : DatumModes::cartesian($this->structure, $stations, $this->state);
            foreach (array_diff(DatumModes::unnoticed($shifts, $rows(), $owner), $unnoticed) as $k) {
                $modes[$k] = $shifts[$k];
                $unnoticed[] = $k;
                $this->cartesianModes[$k] = true;
            }
            sort($unnoticed);
            if ([] === $unnoticed || 1 === \count($stations)) {
                continue; // a lone station is named by the factorization, component by component
            }
            if (!$this->structure->free) {
                $ids = array_map(fn (int $s): string => $this->structure->network->stations[$s]->id, array_keys($stations));
                sort($ids, \SORT_NATURAL);
                throw new UnusableInput('stations', \sprintf(
                    '%s: datum defect: nothing fixes their %s; hold or weight coordinates there, or adjust as a free network',
                    Names::listed($ids),
                    implode(', ', array_map(static fn (int $k): string => DatumModes::NAMES[$k], $unnoticed)),
                ), UnusableInput::DATUM_DEFECT);
            }
            if (\count($parts) > 1) {
                $ids = array_map(fn (int $s): string => $this->structure->network->stations[$s]->id, array_keys($stations));
                sort($ids, \SORT_NATURAL);
                throw new UnusableInput('stations', \sprintf(
                    '%s: the network falls apart, no observation connects them with the rest; adjust the parts '
                        .'separately or observe between them',
                    Names::listed($ids),
                ));
            }
            $anchored = array_filter(
                $stations,
                fn (int $s): bool => null !== $this->given[3 * $s] || null !== $this->given[3 * $s + 2],
                \ARRAY_FILTER_USE_KEY,
            );
            $atGiven = [$this->state->e, $this->state->n, $this->state->h];
            foreach ($anchored as $s => $true) {
                for ($k = 0; $k < 3; ++$k) {
                    $atGiven[$k][$s] = $this->given[3 * $s + $k] ?? $atGiven[$k][$s];
                }
            }
            $constraints = DatumModes::of($this->structure, $anchored, $atGiven[0], $atGiven[1], $atGiven[2], false);
            $this->stations = $stations;
            $this->freeModes = array_map(static fn (int $k): array => [$k, $constraints[$k]], $unnoticed);
            $held = $this->hold($unnoticed, $modes);
        }
        $this->held = $held;
        $this->defect = \count($this->freeModes);
    }

    /** The free directions belong to the present coordinates, the constraints to the given ones; null when the datum is held. */
    public function renew(): ?FreeDatum
    {
        if ([] === $this->freeModes) {
            return null;
        }
        $cartesian = [] === $this->cartesianModes ? [] : DatumModes::cartesian($this->structure, $this->stations, $this->state);
        $modes = array_intersect_key($cartesian, $this->cartesianModes)
            + DatumModes::of($this->structure, $this->stations, $this->state->e, $this->state->n, $this->state->h);
        $g = $c = [];
        foreach ($this->freeModes as [$k, $constraint]) {
            $dense = array_fill(0, $this->structure->parameterCount, 0.0);
            foreach ($modes[$k] as $p => $value) {
                $dense[$p] = $value;
            }
            $g[] = $dense;
            $c[] = $constraint;
        }

        return new FreeDatum($g, $c);
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
        $setAnchor = $seen = [];
        foreach ($this->weights as $i => $weight) {
            if (0.0 === $weight) {
                continue;
            }
            $link = null;
            $pattern = $this->structure->pattern[$i];
            if (isset($seen[$pattern])) {
                continue;
            }
            $seen[$pattern] = true;
            for ($a = $this->structure->patternStart[$pattern], $end = $this->structure->patternStart[$pattern + 1]; $a < $end; ++$a) {
                $p = $this->structure->unknown[$a];
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
}
