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

    /** A row that cancels to this fraction of its parts does not notice; curvature over a network leaves up to 1e-5. */
    private const NOTICE = 1e-4;

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
            $index = $structure->network->stationIndex;
            foreach ($structure->network->observations as $i => $o) {
                $set = $structure->observationSet[$i];
                if (null !== $set && $structure->setParameter[$set] >= 0 && isset($stations[$index[$o->from]])) {
                    $modes[3][$structure->setParameter[$set]] = 1.0;
                }
            }
        }

        return $modes;
    }

    /**
     * Which of the modes no used row notices.
     *
     * @param list<array<int, float>>                         $modes
     * @param iterable<array{list<int>, list<float>}>         $rows unknowns and coefficients
     *
     * @return list<int> mode numbers
     */
    public static function unnoticed(array $modes, iterable $rows): array
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
                $sum = $size = 0.0;
                foreach ($parameters as $a => $p) {
                    $term = $coefficients[$a] * ($modes[$k][$p] ?? 0.0);
                    $sum += $term;
                    $size += abs($term);
                }
                if (abs($sum) > self::NOTICE * $size) {
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
