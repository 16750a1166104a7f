<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Statistics\Distribution;

/**
 * Precision, reliability and tests of a solved network.
 *
 * Reliability after Baarda (1968), A testing procedure for use in geodetic networks.
 *
 * @phpstan-import-type StationRow from AdjustmentResult
 * @phpstan-import-type ObservationRow from AdjustmentResult
 * @phpstan-import-type Relative from RelativeEllipses
 */
final class Judgement
{
    /** Below this an observation controls nothing and nothing controls it. */
    private const UNCONTROLLED = 1e-7;

    /** @var list<float> covariances at the places of the normal matrix */
    private readonly array $q;

    /** What covariances are multiplied by. */
    private float $scale = 1.0;

    /**
     * @param array<int, array{bool, bool, bool}> $used
     * @param list<array{int, float, float}> $weightedCoordinates unknown, standard deviation, given minus adjusted
     * @param array<int, true>               $placeless           stations whose plan nothing gives or touches
     * @param list<float>                    $inverse             selected inverse of the normal matrix
     * @param ?FreeDatum                     $freeDatum           the datum of a free network
     */
    public function __construct(
        private readonly NetworkStructure $structure,
        private readonly NetworkState $state,
        private readonly array $used,
        private readonly Weights $weights,
        private readonly Linearization $equations,
        private readonly array $weightedCoordinates,
        private readonly array $placeless,
        array $inverse,
        ?FreeDatum $freeDatum,
        private readonly int $defect,
        private readonly bool $preanalysis,
    ) {
        $this->q = null === $freeDatum ? $inverse : $freeDatum->covariances($inverse, $structure);
    }

    /** @param list<array{index: int, component?: string, pass: int, standardized: float, reason: string}> $screened */
    public function result(bool $converged, int $iterations, array $screened): AdjustmentResult
    {
        $rows = [];
        $groups = [];
        $count = 0;
        $sumSquares = 0.0;
        $byKind = [];
        foreach ($this->structure->network->observations as $i => $o) {
            $judged = ObservationKind::Vector === $o->kind ? $this->judgeVector($i, $o) : [$this->judgeScalar($i, $o)];
            foreach ($judged as [$row, $square]) {
                $rows[] = $row;
                if ('full' === $row['use']) {
                    ++$count;
                    $sumSquares += $square;
                    $type = $row['type'];
                    $byKind[$type] ??= [0, 0.0, 0.0];
                    ++$byKind[$type][0];
                    $byKind[$type][1] += $square;
                    $byKind[$type][2] += $row['redundancyNumber'];
                }
            }
        }
        $groups = $byKind;
        foreach ($this->weightedCoordinates as [$parameter, $sd, $misfit]) {
            ++$count;
            $square = $misfit * $misfit / ($sd * $sd);
            $sumSquares += $square;
            $groups['coordinate'] ??= [0, 0.0, 0.0];
            ++$groups['coordinate'][0];
            $groups['coordinate'][1] += $square;
            $groups['coordinate'][2] += 1.0 - $this->q[$this->structure->diagonal[$parameter]] / ($sd * $sd);
        }
        $parameters = $this->structure->parameterCount;
        $redundancy = $count - $parameters + $this->defect;
        $tested = !$this->preanalysis && $redundancy > 0;
        $factor = $tested ? $sumSquares / $redundancy : null;
        $warnings = [];
        if (0 === $redundancy) {
            $warnings[] = 'no redundancy: nothing checks these observations';
        }
        if (!$converged) {
            $warnings[] = \sprintf(
                'not converged after %d iterations; look for a gross blunder or a wrong approximate coordinate',
                $iterations,
            );
        }
        $test = null;
        if ($tested) {
            $level = round(1.0 - $this->structure->network->settings->confidence, 12);
            $lower = Distribution::chiSquareQuantile(0.5 * $level, $redundancy);
            $upper = Distribution::chiSquareQuantile(1.0 - 0.5 * $level, $redundancy);
            $test = [
                'statistic' => $sumSquares, 'lower' => $lower, 'upper' => $upper,
                'passed' => $sumSquares >= $lower && $sumSquares <= $upper, 'level' => $level,
            ];
        }
        $listed = [];
        foreach ($groups as $type => [$number, $square, $r]) {
            $listed[] = [
                'type' => $type, 'count' => $number, 'sumSquares' => $square, 'redundancy' => $r,
                'varianceFactor' => !$this->preanalysis && $r > 1e-6 ? $square / $r : null,
            ];
        }
        $this->scale = $this->structure->network->settings->scaleByVarianceFactor ? $factor ?? 1.0 : 1.0;

        return new AdjustmentResult(
            $converged, $iterations, $count, $parameters, $redundancy, $factor, $test, $listed,
            $this->judgeStations($this->scale), $rows, $screened, $warnings,
        );
    }

    /** @return list<Relative> as {@see RelativeEllipses::of()} */
    public function relative(): array
    {
        return RelativeEllipses::of($this->structure, $this->q, $this->used, $this->scale);
    }

    /** @return list<StationRow> */
    private function judgeStations(float $scale): array
    {
        $list = [];
        $state = $this->state;
        $quantile = sqrt(Distribution::chiSquareQuantile($this->structure->network->settings->confidence, 2.0));
        foreach ($this->structure->network->stations as $s => $station) {
            $covariance = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
            for ($c = 0; $c < 3; ++$c) {
                $parameter = $this->structure->coordinateParameter[3 * $s + $c];
                if ($parameter >= 0) {
                    $covariance[$c][$c] = $scale * $this->q[$this->structure->diagonal[$parameter]];
                }
            }
            foreach ([[0, 1], [0, 2], [1, 2]] as $k => [$c, $d]) {
                $place = $this->structure->stationPlaces[$s][$k];
                if ($place >= 0) {
                    $covariance[$c][$d] = $covariance[$d][$c] = $scale * $this->q[$place];
                }
            }
            $entry = [
                'id' => $station->id, 'e' => isset($this->placeless[$s]) ? null : $state->e[$s],
                'n' => isset($this->placeless[$s]) ? null : $state->n[$s], 'h' => $state->h[$s],
            ];
            if (null !== $state->lat[$s] && null !== $state->lon[$s]) {
                $entry['lat'] = rad2deg($state->lat[$s]);
                $entry['lon'] = rad2deg($state->lon[$s]);
                $frame = $this->structure->network->frame;
                $entry['ellipsoidalHeight'] = $state->h[$s]
                    + ($frame instanceof GridFrame ? $frame->undulation($state->lat[$s], $state->lon[$s]) : 0.0);
            }
            $entry['sd'] = [
                'e' => sqrt(max(0.0, $covariance[0][0])), 'n' => sqrt(max(0.0, $covariance[1][1])),
                'h' => sqrt(max(0.0, $covariance[2][2])),
            ];
            $entry['covariance'] = $covariance;
            $entry['ellipse'] = ErrorEllipse::of($covariance[0][0], $covariance[0][1], $covariance[1][1], $quantile)
                + ['confidence' => $this->structure->network->settings->confidence];
            $list[] = $entry;
        }

        return $list;
    }

    /** @return array{ObservationRow, float} row of the result and its part of the sum of squares */
    private function judgeScalar(int $i, Observation $o): array
    {
        $structure = $this->structure;
        $p = $structure->pattern[$i];
        $first = $structure->patternStart[$p];
        $end = $structure->patternStart[$p + 1];
        $o1 = $structure->coefficientStart[$i] - $first;
        $coefficient = $this->equations->coefficient;
        $place = $structure->place;
        $at = $structure->placeStart[$p];
        // Q a' and a Q a'.
        $q = $this->q;
        $qa = array_fill($first, $end - $first, 0.0);
        $qll = 0.0;
        for ($a = $first; $a < $end; ++$a) {
            $ca = $coefficient[$o1 + $a];
            $sum = $qa[$a] + $q[$place[$at++]] * $ca;
            for ($b = $a + 1; $b < $end; ++$b) {
                $value = $q[$place[$at++]];
                $sum += $value * $coefficient[$o1 + $b];
                $qa[$b] += $value * $ca;
            }
            $qa[$a] = $sum;
            $qll += $sum * $ca;
        }
        $variance = $this->weights->variance[$i];
        $kind = $structure->table->kind[$i];
        $unit = ObservationTable::AZIMUTH >= $kind || ObservationTable::ANGLE === $kind || ObservationTable::ZENITH === $kind
            ? 180.0 / \M_PI : 1.0;
        $isUsed = $this->used[$i][0];
        $misclosure = $this->equations->misclosure[$structure->table->row[$i]];
        $observed = $this->preanalysis ? null : $o->value;
        $residual = is_nan($misclosure) || $this->preanalysis ? null : -$misclosure;
        $square = $redundancy = 0.0;
        $detectable = $external = $standardized = null;
        if ($isUsed) {
            $qvv = $variance - $qll;
            $redundancy = $qvv / $variance;
            $square = null === $residual ? 0.0 : $residual * $residual / $variance;
            if ($redundancy < self::UNCONTROLLED) {
                $redundancy = max(0.0, $redundancy);
                $standardized = null === $residual ? null : 0.0;
            } else {
                $standardized = null === $residual ? null : $residual / sqrt($qvv);
                $bias = Adjustment::DELTA0 * $variance / sqrt($qvv);
                $detectable = $bias * $unit;
                $external = $this->largestShift($first, $end, $qa, $bias / $variance);
            }
        } elseif (null !== $residual) {
            $standardized = $variance + $qll > 0.0 ? $residual / sqrt($variance + $qll) : null;
        }
        $adjusted = null;
        if (null !== $residual && null !== $observed) {
            $adjusted = $observed + $residual * $unit;
            if (ObservationTable::ZENITH === $kind) {
                if ($observed > 180.0) {
                    $adjusted = $observed - $residual * $unit;
                    $residual = -$residual;
                    $standardized = null === $standardized ? null : -$standardized;
                }
            } elseif ($kind <= ObservationTable::ANGLE) {
                $adjusted = $adjusted < 0.0 ? $adjusted + 360.0 : ($adjusted >= 360.0 ? $adjusted - 360.0 : $adjusted);
            }
        }

        return [[
            'index' => $i, 'type' => $o->kind->value, 'observed' => $observed, 'adjusted' => $adjusted,
            'residual' => null === $residual ? null : $residual * $unit, 'sd' => sqrt($variance) * $unit,
            'standardized' => $standardized, 'redundancyNumber' => $redundancy, 'minimalDetectable' => $detectable,
            'externalEffect' => $external, 'flagged' => null !== $standardized && abs($standardized) > Adjustment::CRITICAL,
            'use' => $isUsed ? 'full' : 'aside',
        ], $square];
    }

    /**
     * The largest shift of a station of this observation, metres, when its unknowns move by $factor times $shifts.
     *
     * @param array<int, float> $shifts by place in the list of unknowns
     */
    private function largestShift(int $first, int $end, array $shifts, float $factor): float
    {
        $structure = $this->structure;
        $largest = $square = 0.0;
        $block = -1;
        for ($a = $first; $a < $end; ++$a) {
            $column = $structure->column[$a];
            if (9 === $column) {
                break;
            }
            $of = $column < 3 ? 0 : ($column < 6 ? 1 : 2);
            if ($of !== $block) {
                $block = $of;
                $square = 0.0;
            }
            $square += $shifts[$a] * $shifts[$a];
            if ($square > $largest) {
                $largest = $square;
            }
        }

        return sqrt($largest) * abs($factor);
    }

    /**
     * @return list<array{ObservationRow, float}> rows of the result and their part of the sum of squares
     */
    private function judgeVector(int $i, Observation $o): array
    {
        $structure = $this->structure;
        $first = $structure->patternStart[$structure->pattern[$i]];
        $m = $structure->patternStart[$structure->pattern[$i] + 1] - $first;
        $start = $structure->coefficientStart[$i];
        $row0 = $structure->table->row[$i];
        $coefficients = [];
        for ($r = 0; $r < 3; ++$r) {
            $coefficients[] = \array_slice($this->equations->coefficient, $start + $r * $m, $m);
        }
        $covariance = $this->weights->covariance($i);
        $weight = $this->weights->matrix[$i] ?? null;
        $misclosure = \array_slice($this->equations->misclosure, $row0, 3);
        $q = [];
        $at = $structure->placeStart[$structure->pattern[$i]];
        for ($a = 0; $a < $m; ++$a) {
            for ($b = $a; $b < $m; ++$b) {
                $q[$a][$b] = $q[$b][$a] = $this->q[$structure->place[$at++]];
            }
        }
        // A Q and A Q A'.
        $aq = $qll = [];
        for ($r = 0; $r < 3; ++$r) {
            for ($b = 0; $b < $m; ++$b) {
                $sum = 0.0;
                for ($a = 0; $a < $m; ++$a) {
                    $sum += $coefficients[$r][$a] * $q[$a][$b];
                }
                $aq[$r][$b] = $sum;
            }
            for ($c = 0; $c < 3; ++$c) {
                $sum = 0.0;
                for ($b = 0; $b < $m; ++$b) {
                    $sum += ($aq[$r][$b] ?? 0.0) * $coefficients[$c][$b];
                }
                $qll[$r][$c] = $sum;
            }
        }
        $out = [];
        for ($r = 0; $r < 3; ++$r) {
            $isUsed = $this->used[$i][$r];
            $observed = $this->preanalysis ? null : $o->components[$r] ?? null;
            $residual = $this->preanalysis ? null : -$misclosure[$r];
            $square = $redundancy = 0.0;
            $detectable = $external = $standardized = null;
            if ($isUsed && null !== $weight) {
                // Qvv = C - A Q A'; redundancy number (Qvv P)_ii; bias power (P Qvv P)_ii.
                $pqp = 0.0;
                for ($c = 0; $c < 3; ++$c) {
                    $redundancy += ($covariance[$r][$c] - $qll[$r][$c]) * $weight[$c][$r];
                    for ($d = 0; $d < 3; ++$d) {
                        $pqp += $weight[$r][$c] * ($covariance[$c][$d] - $qll[$c][$d]) * $weight[$d][$r];
                    }
                    if (null !== $residual) {
                        $square += $residual * $weight[$r][$c] * -$misclosure[$c];
                    }
                }
                $qvv = $covariance[$r][$r] - $qll[$r][$r];
                if ($redundancy < self::UNCONTROLLED || $qvv < self::UNCONTROLLED * $covariance[$r][$r]) {
                    $redundancy = max(0.0, $redundancy);
                    $standardized = null === $residual ? null : 0.0;
                } else {
                    $standardized = null === $residual ? null : $residual / sqrt($qvv);
                    $detectable = Adjustment::DELTA0 / sqrt($pqp);
                    $shifts = [];
                    for ($a = 0; $a < $m; ++$a) {
                        $shift = 0.0;
                        for ($c = 0; $c < 3; ++$c) {
                            $shift += ($aq[$c][$a] ?? 0.0) * $weight[$c][$r];
                        }
                        $shifts[$first + $a] = $shift;
                    }
                    $external = $this->largestShift($first, $first + $m, $shifts, $detectable);
                }
            } elseif (null !== $residual) {
                // Predicted: independent of the estimate but for the used components of the same vector.
                $variance = $covariance[$r][$r] + $qll[$r][$r];
                if (null !== $weight) {
                    for ($c = 0; $c < 3; ++$c) {
                        for ($d = 0; $d < 3; ++$d) {
                            $variance -= 2.0 * $qll[$r][$c] * $weight[$c][$d] * $covariance[$d][$r];
                        }
                    }
                }
                $standardized = $variance > 0.0 ? $residual / sqrt($variance) : null;
            }
            $out[] = [[
                'index' => $i, 'type' => $o->kind->value, 'component' => ['dx', 'dy', 'dz'][$r], 'observed' => $observed,
                'adjusted' => null === $residual || null === $observed ? null : $observed + $residual, 'residual' => $residual,
                'sd' => sqrt($covariance[$r][$r]), 'standardized' => $standardized, 'redundancyNumber' => $redundancy,
                'minimalDetectable' => $detectable, 'externalEffect' => $external,
                'flagged' => null !== $standardized && abs($standardized) > Adjustment::CRITICAL, 'use' => $isUsed ? 'full' : 'aside',
            ], $square];
        }

        return $out;
    }
}
