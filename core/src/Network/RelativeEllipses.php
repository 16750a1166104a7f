<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Observation\ObservationKind;
use Mensura\Statistics\Distribution;

/**
 * Error ellipses of one station seen from another, for every two that a used observation joins: from the covariance of
 * their coordinate differences (Mikhail and Gracie 1981, chapter 8).
 *
 * @phpstan-type Relative array{from: string, to: string, semiMajor: float, semiMinor: float, bearing: float, sdH: float}
 */
final class RelativeEllipses
{
    /**
     * @param list<float>                         $q     covariances at the places of the normal matrix
     * @param array<int, array{bool, bool, bool}> $used
     * @param float                               $scale variance factor to multiply by
     *
     * @return list<Relative> metres at the confidence of the settings, bearing of the major axis in degrees from north; standard
     *     deviation of the height difference
     */
    public static function of(NetworkStructure $structure, array $q, array $used, float $scale): array
    {
        $network = $structure->network;
        $quantile = sqrt(Distribution::chiSquareQuantile($network->settings->confidence, 2.0));
        $list = $seen = [];
        foreach ($network->observations as $i => $o) {
            if (ObservationKind::HeightDifference === $o->kind || !\in_array(true, \array_slice($used[$i], 0, $o->rowCount()), true)) {
                continue;
            }
            [$a, $b] = $o->from < $o->to ? [$o->from, $o->to] : [$o->to, $o->from];
            if (isset($seen["$a\0$b"])) {
                continue;
            }
            $seen["$a\0$b"] = true;
            $p = $structure->pattern[$i];
            $first = $structure->patternStart[$p];
            $end = $structure->patternStart[$p + 1];
            $at = $structure->placeStart[$p];
            $ee = $en = $nn = $hh = 0.0;
            for ($k = $first; $k < $end; ++$k) {
                $kc = $structure->column[$k];
                for ($l = $k; $l < $end; ++$l) {
                    $value = $q[$structure->place[$at++]];
                    $lc = $structure->column[$l];
                    if ($kc > 5 || $lc > 5) {
                        continue;
                    }
                    // Signs of to less from; a pair of different unknowns counts twice.
                    $value *= ($kc < 3) === ($lc < 3) ? 1.0 : -1.0;
                    $value *= $k === $l ? 1.0 : 2.0;
                    $c = $kc % 3;
                    $d = $lc % 3;
                    if ($c === $d) {
                        0 === $c ? $ee += $value : (1 === $c ? $nn += $value : $hh += $value);
                    } elseif ($c < 2 && $d < 2) {
                        $en += 0.5 * $value;
                    }
                }
            }
            $list[] = ['from' => $a, 'to' => $b] + ErrorEllipse::of($scale * $ee, $scale * $en, $scale * $nn, $quantile)
                + ['sdH' => sqrt(max(0.0, $scale * $hh))];
        }

        return $list;
    }
}
