<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\LinearAlgebra\BlockCholesky;
use Mensura\LinearAlgebra\MinimumDegree;

/**
 * Which coordinates and orientations are unknowns, their elimination order, and where every observation's
 * contributions fall in the normal equations.
 *
 * A coordinate is an unknown when a used observation touches it or it carries a standard deviation, and it is not held.
 * Directions, angles, azimuths and horizontal distances touch the plan only, height differences the height only.
 *
 * Observations between the same stations have the same unknowns: they share a pattern. A pattern's unknowns and their
 * places in the normal matrix stand in flat lists, from its start on. All coordinates of its stations belong to it, also
 * those that the observation does not touch: how far a bias moves a station is asked of all three.
 */
final class NetworkStructure
{
    public readonly ObservationTable $table;

    public readonly int $parameterCount;

    /** @var list<int> unknown of 3 * station + component, -1 when it is none */
    public readonly array $coordinateParameter;

    /** @var list<int> unknown of each set's orientation, -1 when no used direction determines it */
    public readonly array $setParameter;

    /** @var list<array{int, int}> per unknown: station and component, or set and 3 */
    public readonly array $parameterOwner;

    /** @var list<int> pattern of each observation */
    public readonly array $pattern;

    /** @var list<int> per pattern, and one more: where its unknowns begin */
    public readonly array $patternStart;

    /** @var list<int> the unknowns of the patterns */
    public readonly array $unknown;

    /** @var list<int> coefficient of each of them: station block (from, to, back) times three plus component, 9 for the orientation */
    public readonly array $column;

    /**
     * @var list<int> per pattern: where the places of its pairs of unknowns begin (row by row, upper triangle)
     */
    public readonly array $placeStart;

    /** @var list<int> places in the normal matrix, which has the layout of {@see BlockCholesky} */
    public readonly array $place;

    /** @var list<int> place of each unknown's own entry */
    public readonly array $diagonal;

    /** @var list<int> per observation, and one more: where its coefficients begin, row by row */
    public readonly array $coefficientStart;

    /** @var list<array{int, int, int}> per station: places of (e, n), (e, h), (n, h) in the normal matrix, -1 where one is no unknown */
    public readonly array $stationPlaces;

    public readonly BlockCholesky $cholesky;

    /**
     * @param array<int, array{bool, bool, bool}> $used per observation and component
     */
    public function __construct(public readonly NetworkDefinition $network, array $used, public readonly bool $free)
    {
        $table = $this->table = new ObservationTable($network);
        $stationCount = \count($network->stations);
        $isPlane = $network->frame->isPlane();
        $isUnknown = $this->unknownCoordinates($used, $isPlane);
        $setUsed = array_fill(0, \count($table->setNames), false);
        foreach ($table->set as $i => $set) {
            if ($set >= 0 && $used[$i][0]) {
                $setUsed[$set] = true;
            }
        }

        // Patterns: what differs in stations or set.
        $keys = $patternOf = $patternStations = $patternSet = [];
        $kinds = $table->kind;
        foreach ($table->from as $i => $from) {
            $set = $table->set[$i];
            $back = $table->back[$i];
            $key = $from.','.$table->to[$i].','.$back.','.$set;
            if (!isset($keys[$key])) {
                $keys[$key] = \count($patternStations);
                $patternStations[] = $back < 0 ? [$from, $table->to[$i]] : [$from, $table->to[$i], $back];
                $patternSet[] = $set >= 0 && $setUsed[$set] ? $set : -1;
            }
            $patternOf[] = $keys[$key];
        }
        $this->pattern = $patternOf;

        $order = $this->eliminationOrder($isUnknown, $setUsed, $patternStations, $patternSet);
        $coordinateParameter = array_fill(0, 3 * $stationCount, -1);
        $setParameter = array_fill(0, \count($setUsed), -1);
        $owner = $widths = $blockOf = $withinBlock = [];
        foreach ($order as $block => $node) {
            if ($node >= $stationCount) {
                $setParameter[$node - $stationCount] = \count($owner);
                $owner[] = [$node - $stationCount, 3];
                $blockOf[] = $block;
                $withinBlock[] = 0;
                $widths[] = 1;
                continue;
            }
            $width = 0;
            for ($c = 0; $c < 3; ++$c) {
                if ($isUnknown[3 * $node + $c]) {
                    $coordinateParameter[3 * $node + $c] = \count($owner);
                    $owner[] = [$node, $c];
                    $blockOf[] = $block;
                    $withinBlock[] = $width++;
                }
            }
            $widths[] = $width;
        }
        $this->parameterOwner = $owner;
        $this->coordinateParameter = $coordinateParameter;
        $this->setParameter = $setParameter;
        $this->parameterCount = \count($owner);

        $patternStart = [0];
        $unknown = $column = [];
        foreach ($patternStations as $p => $stations) {
            foreach ($stations as $k => $s) {
                for ($c = 0; $c < 3; ++$c) {
                    $parameter = $coordinateParameter[3 * $s + $c];
                    if ($parameter >= 0) {
                        $unknown[] = $parameter;
                        $column[] = 3 * $k + $c;
                    }
                }
            }
            if ($patternSet[$p] >= 0) {
                $unknown[] = $setParameter[$patternSet[$p]];
                $column[] = 9;
            }
            $patternStart[] = \count($unknown);
        }
        $this->patternStart = $patternStart;
        $this->unknown = $unknown;
        $this->column = $column;
        $start = [0];
        $at = 0;
        foreach ($patternOf as $i => $p) {
            $start[] = $at += ($patternStart[$p + 1] - $patternStart[$p]) * (ObservationTable::VECTOR === $kinds[$i] ? 3 : 1);
        }
        $this->coefficientStart = $start;

        // Blocks that meet, by the later of the two.
        $patternCount = \count($patternStations);
        $meet = array_fill(0, max(\count($widths), 1), []);
        for ($p = 0; $p < $patternCount; ++$p) {
            $end = $patternStart[$p + 1];
            $blocks = [];
            for ($a = $patternStart[$p]; $a < $end; ++$a) {
                $blocks[$blockOf[$unknown[$a]]] = true;
            }
            foreach ($blocks as $i => $true) {
                foreach ($blocks as $k => $alsoTrue) {
                    if ($i < $k) {
                        $meet[$k][$i] = true;
                    }
                }
            }
        }
        $upperStart = [0];
        $rows = $meeting = [];
        foreach ($widths as $k => $width) {
            $meeting[$k] = [];
            foreach ($meet[$k] as $i => $true) {
                $meeting[$k][$i] = \count($rows);
                $rows[] = $i;
            }
            $upperStart[] = \count($rows);
        }
        $this->cholesky = $cholesky = new BlockCholesky($widths, $upperStart, $rows);
        $diagonal = [];
        foreach ($blockOf as $parameter => $block) {
            $diagonal[] = $cholesky->diagonalAt[$block] + $withinBlock[$parameter] * ($widths[$block] + 1);
        }
        $this->diagonal = $diagonal;
        $placeStart = $place = [];
        $diagonalAt = $cholesky->diagonalAt;
        $upperAt = $cholesky->upperAt;
        for ($p = 0; $p < $patternCount; ++$p) {
            $placeStart[] = \count($place);
            $end = $patternStart[$p + 1];
            for ($a = $patternStart[$p]; $a < $end; ++$a) {
                $block = $blockOf[$unknown[$a]];
                $within = $withinBlock[$unknown[$a]];
                // Unknowns of a block stand together: its place is looked up once for all of them.
                $last = -1;
                $base = $stride = 0;
                for ($b = $a; $b < $end; ++$b) {
                    $other = $blockOf[$unknown[$b]];
                    if ($other !== $last) {
                        $last = $other;
                        if ($other === $block) {
                            $base = $diagonalAt[$block] + $within * $widths[$block];
                            $stride = 1;
                        } elseif ($block > $other) {
                            $base = $upperAt[$meeting[$block][$other]] + $within * $widths[$other];
                            $stride = 1;
                        } else {
                            $base = $upperAt[$meeting[$other][$block]] + $within;
                            $stride = $widths[$block];
                        }
                    }
                    $place[] = $base + $stride * $withinBlock[$unknown[$b]];
                }
            }
        }
        $this->placeStart = $placeStart;
        $this->place = $place;
        $stationPlaces = [];
        for ($s = 0; $s < 3 * $stationCount; $s += 3) {
            $own = [];
            foreach ([[0, 1], [0, 2], [1, 2]] as [$c, $d]) {
                $pa = $coordinateParameter[$s + $c];
                $pb = $coordinateParameter[$s + $d];
                $own[] = $pa < 0 || $pb < 0 ? -1
                    : $diagonalAt[$blockOf[$pa]] + $withinBlock[$pa] * $widths[$blockOf[$pa]] + $withinBlock[$pb];
            }
            $stationPlaces[] = [$own[0], $own[1], $own[2]];
        }
        $this->stationPlaces = $stationPlaces;
    }

    /**
     * @param array<int, array{bool, bool, bool}> $used
     *
     * @return list<bool> per station and component
     */
    private function unknownCoordinates(array $used, bool $isPlane): array
    {
        $table = $this->table;
        $touched = array_fill(0, 3 * \count($this->network->stations), false);
        foreach ($table->kind as $i => $kind) {
            [$first, $second, $third] = $used[$i];
            if (ObservationTable::VECTOR === $kind) {
                if (!$isPlane) {
                    $first = $second = $third = $first || $second || $third;
                }
            } elseif (!$first) {
                continue;
            } else {
                $first = $second = ObservationTable::HEIGHT_DIFFERENCE !== $kind;
                $third = $kind >= ObservationTable::ZENITH || ObservationTable::SLOPE_DISTANCE === $kind;
            }
            foreach ([$table->from[$i], $table->to[$i], $table->back[$i]] as $s) {
                if ($s >= 0) {
                    if ($first) {
                        $touched[3 * $s] = true;
                    }
                    if ($second) {
                        $touched[3 * $s + 1] = true;
                    }
                    if ($third) {
                        $touched[3 * $s + 2] = true;
                    }
                }
            }
        }
        $isUnknown = [];
        foreach ($this->network->stations as $s => $station) {
            for ($c = 0; $c < 3; ++$c) {
                $isUnknown[] = $this->free ? $touched[3 * $s + $c]
                    : !$station->fixed[$c] && ($touched[3 * $s + $c] || null !== $station->sd[$c]);
            }
        }

        return $isUnknown;
    }

    /**
     * Nodes of the graph: stations with unknowns, then sets.
     *
     * @param list<bool>      $isUnknown
     * @param list<bool>      $setUsed
     * @param list<list<int>> $patternStations
     * @param list<int>       $patternSet
     *
     * @return list<int> stations, and sets counted on after them, in elimination order
     */
    private function eliminationOrder(array $isUnknown, array $setUsed, array $patternStations, array $patternSet): array
    {
        $stationCount = \count($this->network->stations);
        $nodeOf = $ownerOf = $weights = [];
        for ($s = 0; $s < $stationCount; ++$s) {
            $weight = (int) $isUnknown[3 * $s] + (int) $isUnknown[3 * $s + 1] + (int) $isUnknown[3 * $s + 2];
            if ($weight > 0) {
                $nodeOf[$s] = \count($weights);
                $ownerOf[] = $s;
                $weights[] = $weight;
            }
        }
        foreach ($setUsed as $set => $isUsed) {
            if ($isUsed) {
                $nodeOf[$stationCount + $set] = \count($weights);
                $ownerOf[] = $stationCount + $set;
                $weights[] = 1;
            }
        }
        $links = array_fill(0, \count($weights), []);
        foreach ($patternStations as $p => $stations) {
            $nodes = [];
            foreach ($stations as $s) {
                if (isset($nodeOf[$s])) {
                    $nodes[] = $nodeOf[$s];
                }
            }
            if ($patternSet[$p] >= 0) {
                $nodes[] = $nodeOf[$stationCount + $patternSet[$p]];
            }
            foreach ($nodes as $a) {
                foreach ($nodes as $b) {
                    if ($a !== $b) {
                        $links[$a][$b] = true;
                    }
                }
            }
        }

        return array_map(
            static fn (int $node): int => $ownerOf[$node], MinimumDegree::order(array_map(array_keys(...), $links), $weights),
        );
    }
}
