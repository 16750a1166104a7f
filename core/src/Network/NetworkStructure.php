<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\LinearAlgebra\MinimumDegree;
use Mensura\LinearAlgebra\SparseCholesky;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;

/**
 * Which coordinates and orientations are unknowns, their elimination order, and where every observation's
 * contributions fall in the normal equations.
 *
 * A coordinate is an unknown when a used observation touches it or it carries a standard deviation, and it is not held.
 * Directions, angles, azimuths and horizontal distances touch the plan only, height differences the height only.
 */
final class NetworkStructure
{
    public readonly int $parameterCount;

    /** @var list<int> unknown of 3 * station + component, -1 when it is none */
    public readonly array $coordinateParameter;

    /** @var list<int> unknown of each set's orientation, -1 when no used direction determines it */
    public readonly array $setParameter;

    /** @var list<?int> set of each observation */
    public readonly array $observationSet;

    /** @var list<string> */
    public readonly array $setNames;

    /** @var list<array{int, int}> per unknown: station and component, or set and 3 */
    public readonly array $parameterOwner;

    /** @var list<list<int>> per observation, the unknowns of its coefficients */
    public readonly array $blockParameters;

    /**
     * @var list<list<int>> per observation, the coefficient (station block times three plus component, or 9 for the
     * orientation) of each of its unknowns
     */
    public readonly array $blockColumns;

    /**
     * @var list<list<int>> per observation, positions in the normal matrix of its unknowns' pairs (row by row, upper
     * triangle): below parameterCount the diagonal, then the upper pattern
     */
    public readonly array $blockPositions;

    public readonly SparseCholesky $cholesky;

    public readonly int $normalSize;

    /**
     * @param array<int, array{bool, bool, bool}> $used per observation and component
     */
    public function __construct(public readonly NetworkDefinition $network, array $used, public readonly bool $free)
    {
        $index = $network->stationIndex;
        $stationCount = \count($network->stations);
        $touched = array_fill(0, 3 * $stationCount, false);
        $sets = [];
        $observationSet = [];
        $setUsed = [];
        $ends = [];
        foreach ($network->observations as $i => $o) {
            $from = $index[$o->from];
            $to = $index[$o->to];
            $ends[] = null === $o->back ? [$from, $to] : [$from, $to, $index[$o->back]];
            $set = null;
            if (ObservationKind::Direction === $o->kind) {
                $set = $sets[$o->from."\0".$o->set] ??= \count($sets);
                $setUsed[$set] = ($setUsed[$set] ?? false) || $used[$i][0];
            }
            $observationSet[] = $set;
            foreach ($this->touches($o, $used[$i]) as $component) {
                foreach ($ends[$i] as $station) {
                    $touched[3 * $station + $component] = true;
                }
            }
        }
        $this->observationSet = $observationSet;
        $this->setNames = array_map(static fn (string $key): string => strtr($key, "\0", ' '), array_keys($sets));

        $isUnknown = [];
        foreach ($network->stations as $s => $station) {
            for ($c = 0; $c < 3; ++$c) {
                $isUnknown[] = $free ? $touched[3 * $s + $c] : !$station->fixed[$c] && ($touched[3 * $s + $c] || null !== $station->sd[$c]);
            }
        }

        // Nodes of the graph: stations with unknowns, then sets.
        $nodeOf = [];
        $weights = [];
        for ($s = 0; $s < $stationCount; ++$s) {
            $weight = (int) $isUnknown[3 * $s] + (int) $isUnknown[3 * $s + 1] + (int) $isUnknown[3 * $s + 2];
            if ($weight > 0) {
                $nodeOf[$s] = \count($weights);
                $weights[] = $weight;
            }
        }
        $setNode = [];
        foreach ($sets as $set) {
            if ($setUsed[$set]) {
                $setNode[$set] = \count($weights);
                $weights[] = 1;
            }
        }
        $links = array_fill(0, \count($weights), []);
        foreach ($ends as $i => $stations) {
            $nodes = [];
            foreach ($stations as $s) {
                if (isset($nodeOf[$s])) {
                    $nodes[] = $nodeOf[$s];
                }
            }
            if (null !== $observationSet[$i] && isset($setNode[$observationSet[$i]])) {
                $nodes[] = $setNode[$observationSet[$i]];
            }
            foreach ($nodes as $a) {
                foreach ($nodes as $b) {
                    if ($a !== $b) {
                        $links[$a][$b] = true;
                    }
                }
            }
        }
        $order = MinimumDegree::order(array_map(array_keys(...), $links), $weights);

        $stationOfNode = array_flip($nodeOf);
        $setOfNode = array_flip($setNode);
        $coordinateParameter = array_fill(0, 3 * $stationCount, -1);
        $setParameter = array_fill(0, \count($sets), -1);
        $owner = [];
        foreach ($order as $node) {
            if (isset($setOfNode[$node])) {
                $setParameter[$setOfNode[$node]] = \count($owner);
                $owner[] = [$setOfNode[$node], 3];
                continue;
            }
            $s = $stationOfNode[$node];
            for ($c = 0; $c < 3; ++$c) {
                if ($isUnknown[3 * $s + $c]) {
                    $coordinateParameter[3 * $s + $c] = \count($owner);
                    $owner[] = [$s, $c];
                }
            }
        }
        $this->parameterOwner = $owner;
        $this->coordinateParameter = $coordinateParameter;
        $this->setParameter = $setParameter;
        $n = $this->parameterCount = \count($owner);

        $columns = array_fill(0, $n, []);
        $blockParameters = $blockColumns = [];
        foreach ($ends as $i => $stations) {
            $parameters = $blockColumn = [];
            foreach ($stations as $k => $s) {
                for ($c = 0; $c < 3; ++$c) {
                    if ($coordinateParameter[3 * $s + $c] >= 0) {
                        $parameters[] = $coordinateParameter[3 * $s + $c];
                        $blockColumn[] = 3 * $k + $c;
                    }
                }
            }
            $set = $observationSet[$i];
            if (null !== $set && $setParameter[$set] >= 0) {
                $parameters[] = $setParameter[$set];
                $blockColumn[] = 9;
            }
            $blockParameters[] = $parameters;
            $blockColumns[] = $blockColumn;
            $count = \count($parameters);
            for ($a = 0; $a < $count; ++$a) {
                for ($b = $a + 1; $b < $count; ++$b) {
                    $columns[max($parameters[$a], $parameters[$b])][min($parameters[$a], $parameters[$b])] = true;
                }
            }
        }
        $this->blockParameters = $blockParameters;
        $this->blockColumns = $blockColumns;
        $start = [0];
        $rows = [];
        $places = array_fill(0, $n, []);
        foreach ($columns as $k => $column) {
            foreach ($column as $i => $true) {
                $places[$k][$i] = $n + \count($rows);
                $rows[] = $i;
            }
            $start[] = \count($rows);
        }
        $this->normalSize = $n + \count($rows);
        $positions = [];
        foreach ($blockParameters as $parameters) {
            $list = [];
            $count = \count($parameters);
            for ($a = 0; $a < $count; ++$a) {
                $pa = $parameters[$a];
                $list[] = $pa;
                for ($b = $a + 1; $b < $count; ++$b) {
                    $pb = $parameters[$b];
                    $list[] = $pa > $pb ? $places[$pa][$pb] : $places[$pb][$pa];
                }
            }
            $positions[] = $list;
        }
        $this->blockPositions = $positions;
        $this->cholesky = new SparseCholesky($n, $start, $rows);
    }

    /**
     * @param array{bool, bool, bool} $used
     *
     * @return list<int> components of both ends
     */
    private function touches(Observation $o, array $used): array
    {
        if (ObservationKind::Vector === $o->kind) {
            if (!$this->network->frame->isPlane()) {
                return $used[0] || $used[1] || $used[2] ? [0, 1, 2] : [];
            }

            return array_keys(array_filter($used));
        }
        if (!$used[0]) {
            return [];
        }
        if (ObservationKind::HeightDifference === $o->kind) {
            return [2];
        }

        return $o->kind->isPlanOnly() ? [0, 1] : [0, 1, 2];
    }
}
