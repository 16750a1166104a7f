<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\LinearAlgebra\SelectedInverse;
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
 */
final class Judgement
{
    /** Below this an observation controls nothing and nothing controls it. */
    private const UNCONTROLLED = 1e-7;

    /**
     * @param list<array{int, float, float}> $weightedCoordinates unknown, standard deviation, given minus adjusted
     * @param array<int, true>               $placeless           stations whose plan nothing gives or touches
     * @param ?FreeDatum                     $freeDatum           the datum of a free network
     */
    public function __construct(
        private readonly NetworkStructure $structure,
        private readonly NetworkState $state,
        private readonly Equations $equations,
        private readonly array $weightedCoordinates,
        private readonly array $placeless,
        private readonly SelectedInverse $inverse,
        private readonly ?FreeDatum $freeDatum,
        private readonly int $defect,
        private readonly bool $preanalysis,
    ) {
    }

    /**
     * @param list<int> $parameters
     *
     * @return list<list<float>> covariance of some unknowns that meet in one observation
     */
    private function covarianceOf(array $parameters): array
    {
        $q = [];
        foreach ($parameters as $a => $pa) {
            for ($b = 0; $b <= $a; ++$b) {
                $pb = $parameters[$b];
                $q[$a][$b] = $q[$b][$a] = null === $this->freeDatum ? $this->inverse->at($pa, $pb) : $this->freeDatum->covariance(
                    $this->inverse, $pa, $pb,
                );
            }
        }

        return $q;
    }

    /** @param list<array{index: int, component?: string, pass: int, standardized: float, reason: string}> $screened */
    public function result(bool $converged, int $iterations, array $screened): AdjustmentResult
    {
        $rows = [];
        $groups = [];
        $count = 0;
        $sumSquares = 0.0;
        foreach ($this->structure->network->observations as $i => $o) {
            foreach ($this->judgeObservation($i, $o) as [$row, $square]) {
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
        foreach ($this->weightedCoordinates as [$parameter, $sd, $misfit]) {
            ++$count;
            $square = $misfit * $misfit / ($sd * $sd);
            $sumSquares += $square;
            $groups['coordinate'] ??= [0, 0.0, 0.0];
            ++$groups['coordinate'][0];
            $groups['coordinate'][1] += $square;
            $groups['coordinate'][2] += 1.0 - $this->inverse->at($parameter, $parameter) / ($sd * $sd);
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
        $scale = $this->structure->network->settings->scaleByVarianceFactor ? $factor ?? 1.0 : 1.0;

        return new AdjustmentResult(
            $converged, $iterations, $count, $parameters, $redundancy, $factor, $test, $listed,
            $this->judgeStations($scale), $rows, $screened, $warnings,
        );
    }

    /** @return list<StationRow> */
    private function judgeStations(float $scale): array
    {
        $list = [];
        $state = $this->state;
        $quantile = sqrt(Distribution::chiSquareQuantile($this->structure->network->settings->confidence, 2.0));
        foreach ($this->structure->network->stations as $s => $station) {
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
            foreach ($this->covarianceOf($unknown) as $a => $row) {
                foreach ($row as $b => $value) {
                    $covariance[$where[$a]][$where[$b]] = $scale * $value;
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

    /**
     * @return list<array{ObservationRow, float}> rows of the result and their part of the sum of squares
     */
    private function judgeObservation(int $i, Observation $o): array
    {
        $parameters = $this->structure->blockParameters[$i];
        $coefficients = $this->equations->coefficients[$i];
        $covariance = $this->equations->covariances[$i];
        $weight = $this->equations->weights[$i];
        $misclosure = $this->equations->misclosure[$i];
        $rowCount = \count($covariance);
        $m = \count($parameters);
        $q = $this->covarianceOf($parameters);
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
            $isUsed = $this->equations->used[$i][$r];
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
                    $bias = Adjustment::DELTA0 / sqrt($pqp);
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
                'flagged' => null !== $standardized && abs($standardized) > Adjustment::CRITICAL,
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
