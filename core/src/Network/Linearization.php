<?php

declare(strict_types=1);

namespace Mensura\Network;

/**
 * The observation equations at a state: what is observed less what the state gives, and the coefficients of the unknowns.
 *
 * Flat lists: misclosures per row, coefficients per observation, row and unknown of its pattern. Radians and metres.
 */
final class Linearization
{
    /** Ends of a sight closer than this are one place, metres. */
    private const SAME_PLACE = 1e-6;

    /** @var list<float> per row; NAN where it cannot be predicted (a direction whose set is not oriented) */
    public array $misclosure = [];

    /** @var list<float> */
    public array $coefficient = [];

    public function __construct(
        private readonly NetworkStructure $structure,
        private readonly ObservationEquations $equations,
        private readonly bool $isPreanalysis,
    ) {
    }

    public function at(NetworkState $state): void
    {
        if ($this->structure->network->frame->isPlane()) {
            $this->inPlane($state);
        } else {
            $this->onEllipsoid();
        }
        if ($this->isPreanalysis) {
            $this->misclosure = array_fill(0, $this->structure->table->rowCount, 0.0);
        }
        foreach ($this->structure->table->set as $i => $set) {
            if ($set >= 0 && $this->structure->setParameter[$set] < 0) {
                $this->misclosure[$this->structure->table->row[$i]] = \NAN;
            }
        }
    }

    private function onEllipsoid(): void
    {
        $structure = $this->structure;
        $table = $structure->table;
        $column = $structure->column;
        $patternStart = $structure->patternStart;
        $misclosure = $coefficient = [];
        foreach ($structure->network->observations as $i => $o) {
            $set = $table->set[$i];
            $isAngular = $o->kind->isAngular();
            $p = $structure->pattern[$i];
            $first = $patternStart[$p];
            $end = $patternStart[$p + 1];
            $row = $table->row[$i];
            $computedRows = $this->equations->of($o, $set < 0 ? null : $set, $table->instrumentHeight[$i], $table->targetHeight[$i]);
            foreach ($computedRows as $r => [$computed, $partials, $byOrientation]) {
                $difference = $table->value[$row + $r] - $computed;
                $misclosure[] = $isAngular ? $difference - 2.0 * \M_PI * round($difference / (2.0 * \M_PI)) : $difference;
                for ($a = $first; $a < $end; ++$a) {
                    $coefficient[] = 9 === $column[$a] ? $byOrientation : $partials[$column[$a]];
                }
            }
        }
        $this->misclosure = $misclosure;
        $this->coefficient = $coefficient;
    }

    /** The same in a flat system, written out: it is the loop that large networks spend their time in. */
    private function inPlane(NetworkState $state): void
    {
        $structure = $this->structure;
        $table = $structure->table;
        $kinds = $table->kind;
        $froms = $table->from;
        $tos = $table->to;
        $his = $table->instrumentHeight;
        $hts = $table->targetHeight;
        $values = $table->value;
        $sets = $table->set;
        $pattern = $structure->pattern;
        $patternStart = $structure->patternStart;
        $column = $structure->column;
        $es = $state->e;
        $ns = $state->n;
        $hs = $state->h;
        $orientation = $state->orientation;
        $misclosure = $coefficient = [];
        $turn = 2.0 * \M_PI;
        $row = 0;
        $partials = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        foreach ($kinds as $i => $kind) {
            $from = $froms[$i];
            $to = $tos[$i];
            $p = $pattern[$i];
            $a = $patternStart[$p];
            $end = $patternStart[$p + 1];
            if (ObservationTable::VECTOR === $kind) {
                $d = [$es[$to] - $es[$from], $ns[$to] - $ns[$from], $hs[$to] - $hs[$from]];
                for ($r = 0; $r < 3; ++$r) {
                    $misclosure[] = $values[$row++] - $d[$r];
                    for ($b = $a; $b < $end; ++$b) {
                        $coefficient[] = $column[$b] === $r ? -1.0 : ($column[$b] === $r + 3 ? 1.0 : 0.0);
                    }
                }
                continue;
            }
            $h = $hs[$to] - $hs[$from];
            if (ObservationTable::HEIGHT_DIFFERENCE === $kind) {
                $misclosure[] = $values[$row++] - $h;
                for (; $a < $end; ++$a) {
                    $coefficient[] = 2 === $column[$a] ? -1.0 : (5 === $column[$a] ? 1.0 : 0.0);
                }
                continue;
            }
            $e = $es[$to] - $es[$from];
            $n = $ns[$to] - $ns[$from];
            $plan2 = $e * $e + $n * $n;
            $u = 0.0;
            if (ObservationTable::SLOPE_DISTANCE === $kind || ObservationTable::ZENITH === $kind) {
                $u = $h + $hts[$i] - $his[$i];
            }
            $length2 = $plan2 + $u * $u;
            if (!($length2 > self::SAME_PLACE * self::SAME_PLACE)) {
                throw $this->equations->samePlace($structure->network->observations[$i], $structure->network->observations[$i]->to);
            }
            switch ($kind) {
                case ObservationTable::SLOPE_DISTANCE:
                    $length = sqrt($length2);
                    $misclosure[] = $values[$row++] - $length;
                    $gE = $e / $length;
                    $gN = $n / $length;
                    $gU = $u / $length;
                    break;
                case ObservationTable::ZENITH:
                    $plan = sqrt($plan2);
                    $difference = $values[$row++] - atan2($plan, $u);
                    $misclosure[] = $difference - $turn * round($difference / $turn);
                    $q = $plan > 0.0 ? $u / ($plan * $length2) : 0.0;
                    $gE = $e * $q;
                    $gN = $n * $q;
                    $gU = -$plan / $length2;
                    break;
                case ObservationTable::HORIZONTAL_DISTANCE:
                    $length = sqrt($plan2);
                    $misclosure[] = $values[$row++] - $length;
                    $gE = $e / $length;
                    $gN = $n / $length;
                    $gU = 0.0;
                    break;
                default:
                    $computed = atan2($e, $n);
                    $gE = $n / $plan2;
                    $gN = -$e / $plan2;
                    $gU = 0.0;
                    if (ObservationTable::DIRECTION === $kind) {
                        $computed -= $orientation[$sets[$i]];
                    } elseif (ObservationTable::ANGLE === $kind) {
                        $b = $table->back[$i];
                        $be = $es[$b] - $es[$from];
                        $bn = $ns[$b] - $ns[$from];
                        $back2 = $be * $be + $bn * $bn;
                        if (!($back2 > self::SAME_PLACE * self::SAME_PLACE)) {
                            throw $this->equations->samePlace(
                                $structure->network->observations[$i], (string) $structure->network->observations[$i]->back,
                            );
                        }
                        $computed -= atan2($be, $bn);
                        $partials[6] = -$bn / $back2;
                        $partials[7] = $be / $back2;
                        $partials[0] = -$gE - $partials[6];
                        $partials[1] = -$gN - $partials[7];
                        $partials[3] = $gE;
                        $partials[4] = $gN;
                    }
                    $difference = $values[$row++] - $computed;
                    $misclosure[] = $difference - $turn * round($difference / $turn);
            }
            if (ObservationTable::ANGLE === $kind) {
                for (; $a < $end; ++$a) {
                    $coefficient[] = $partials[$column[$a]];
                }
                continue;
            }
            for (; $a < $end; ++$a) {
                switch ($column[$a]) {
                    case 0: $coefficient[] = -$gE;
                        break;
                    case 1: $coefficient[] = -$gN;
                        break;
                    case 2: $coefficient[] = -$gU;
                        break;
                    case 3: $coefficient[] = $gE;
                        break;
                    case 4: $coefficient[] = $gN;
                        break;
                    case 5: $coefficient[] = $gU;
                        break;
                    default: $coefficient[] = -1.0;
                }
            }
        }
        $this->misclosure = $misclosure;
        $this->coefficient = $coefficient;
    }
}
