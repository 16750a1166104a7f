<?php

declare(strict_types=1);

namespace Mensura\Network;

/**
 * The ways a whole network can move without any observation noticing: translation east, north and up, rotation about
 * the vertical, change of scale.
 */
final class DatumModes
{
    public const NAMES = ['position east', 'position north', 'height', 'rotation about the vertical', 'scale'];

    /**
     * A row does not notice a mode when its change is this small a fraction of what the coefficients could give.
     * The curvature of the earth leaves 1.6e-7 per metre of a sight or vector.
     */
    private const NOTICE = 1e-3;

    /**
     * @param array<int, true>            $stations the stations that move together
     * @param list<float>                 $e
     * @param list<float>                 $n
     * @param list<float>                 $h
     *
     * @return list<array<int, float>> per mode, sparse over the unknowns; orientations turn with the rotation
     */
    public static function of(NetworkStructure $structure, array $stations, array $e, array $n, array $h, bool $orientations = true): array
    {
        $count = max(1, \count($stations));
        $ce = $cn = $ch = 0.0;
        foreach ($stations as $s => $true) {
            $ce += $e[$s] / $count;
            $cn += $n[$s] / $count;
            $ch += $h[$s] / $count;
        }
        $modes = [[], [], [], [], []];
        $parameter = $structure->coordinateParameter;
        foreach ($stations as $s => $true) {
            $pe = $parameter[3 * $s];
            $pn = $parameter[3 * $s + 1];
            $ph = $parameter[3 * $s + 2];
            $de = $e[$s] - $ce;
            $dn = $n[$s] - $cn;
            if ($pe >= 0) {
                $modes[0][$pe] = 1.0;
                $modes[3][$pe] = $dn;
                $modes[4][$pe] = $de;
            }
            if ($pn >= 0) {
                $modes[1][$pn] = 1.0;
                $modes[3][$pn] = -$de;
                $modes[4][$pn] = $dn;
            }
            if ($ph >= 0) {
                $modes[2][$ph] = 1.0;
                if ($pe >= 0) {
                    $modes[4][$ph] = $h[$s] - $ch;
                }
            }
        }
        if ($orientations) {
            foreach ($structure->setParameter as $set => $turning) {
                if ($turning >= 0 && isset($stations[$structure->table->setStation[$set]])) {
                    $modes[3][$turning] = 1.0;
                }
            }
        }

        return $modes;
    }

    /**
     * The translations as shifts in Cartesian space, along the horizon of the first of the stations. In a plane they are
     * the same; on the ellipsoid they are what a vector does not notice, while a sight does not notice the others.
     *
     * @param array<int, true> $stations
     *
     * @return list<array<int, float>> modes 0 to 2
     */
    public static function cartesian(NetworkStructure $structure, array $stations, NetworkState $state): array
    {
        $modes = [[], [], []];
        $first = 9 * (array_key_first($stations) ?? 0);
        $jacobian = $state->jacobian;
        $axes = $state->axes;
        $parameters = $structure->coordinateParameter;
        foreach ($stations as $s => $true) {
            $at = 9 * $s;
            $eastByE = $jacobian[$at];
            $eastByN = $jacobian[$at + 1];
            $northByE = $jacobian[$at + 3];
            $northByN = $jacobian[$at + 4];
            $det = $eastByE * $northByN - $eastByN * $northByE;
            for ($k = 0; $k < 3; ++$k) {
                $from = $first + 3 * $k;
                $local = [];
                for ($r = $at; $r < $at + 9; $r += 3) {
                    $local[] = $axes[$r] * $axes[$from] + $axes[$r + 1] * $axes[$from + 1] + $axes[$r + 2] * $axes[$from + 2];
                }
                $shift = [
                    ($northByN * $local[0] - $eastByN * $local[1]) / $det,
                    ($eastByE * $local[1] - $northByE * $local[0]) / $det, $local[2],
                ];
                for ($c = 0; $c < 3; ++$c) {
                    $parameter = $parameters[3 * $s + $c];
                    if ($parameter >= 0) {
                        $modes[$k][$parameter] = $shift[$c];
                    }
                }
            }
        }

        return $modes;
    }

    /**
     * Which of the modes no used row notices.
     *
     * @param list<array<int, float>>                         $modes
     * @param iterable<array{list<int>, list<float>}>         $rows  unknowns and coefficients
     * @param list<array{int, int}>                           $owner of each unknown
     *
     * @return list<int> mode numbers
     */
    public static function unnoticed(array $modes, iterable $rows, array $owner): array
    {
        $free = [];
        foreach ($modes as $k => $mode) {
            $largest = 0.0;
            foreach ($mode as $value) {
                $largest = max($largest, abs($value));
            }
            if ($largest > 1e-9) {
                $free[$k] = true;
            }
        }
        foreach ($rows as [$parameters, $coefficients]) {
            foreach ($free as $k => $true) {
                $sum = $rowSquare = $modeSquare = $turn = 0.0;
                foreach ($parameters as $a => $p) {
                    $g = $modes[$k][$p] ?? 0.0;
                    $sum += $coefficients[$a] * $g;
                    if (3 === $owner[$p][1]) {
                        $turn += abs($coefficients[$a] * $g); // an orientation has its own unit
                    } else {
                        $rowSquare += $coefficients[$a] ** 2;
                        $modeSquare += $g * $g;
                    }
                }
                if (abs($sum) > self::NOTICE * (sqrt($rowSquare * $modeSquare) + $turn)) {
                    unset($free[$k]);
                }
            }
            if ([] === $free) {
                break;
            }
        }

        return array_keys($free);
    }
}
