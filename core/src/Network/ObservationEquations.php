<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;

/**
 * The linearized observation equations of a network at a state.
 *
 * Rows are scalar: one per observation, three per vector. Coefficients come as two or three station
 * blocks of three (by e, n, h) and one for the set's orientation; {@see NetworkStructure} says which of
 * them are unknowns. Angular rows are in radians.
 */
final class ObservationEquations
{
    /** Ends of a sight closer than this are one place, metres. */
    private const SAME_PLACE = 1e-6;

    private Sight $sight;
    private Sight $second;

    private float $instrumentHeight = 0.0;
    private float $targetHeight = 0.0;

    public function __construct(private readonly NetworkDefinition $network, private readonly NetworkState $state)
    {
        $plane = $network->frame->isPlane();
        $this->sight = new Sight($state, $plane);
        $this->second = new Sight($state, $plane);
    }

    /**
     * @param ?int   $set              index of the direction's set
     * @param ?float $instrumentHeight another than the recorded one
     * @param ?float $targetHeight     likewise
     *
     * @return list<array{float, list<float>, float}> per row: computed value; coefficients of from (3), to (3) and back
     *     (3, angles only); coefficient of the orientation
     */
    public function of(Observation $o, ?int $set, ?float $instrumentHeight = null, ?float $targetHeight = null): array
    {
        $this->instrumentHeight = $instrumentHeight ?? $o->instrumentHeight;
        $this->targetHeight = $targetHeight ?? $o->targetHeight;
        $index = $this->network->stationIndex;
        $from = $index[$o->from];
        $to = $index[$o->to];
        $s = $this->sight;
        switch ($o->kind) {
            case ObservationKind::HeightDifference:
                return [[$this->state->h[$to] - $this->state->h[$from], [0.0, 0.0, -1.0, 0.0, 0.0, 1.0], 0.0]];
            case ObservationKind::Vector:
                return $this->vector($from, $to);
            case ObservationKind::Direction:
            case ObservationKind::Azimuth:
                $this->aim($s, $o, $o->to);
                $q = 1.0 / ($s->plan * $s->plan);
                $row = $s->chain($s->north * $q, -$s->east * $q, 0.0);

                return null === $set
                    ? [[$s->azimuth(), $row, 0.0]]
                    : [[$s->azimuth() - $this->state->orientation[$set], $row, -1.0]];
            case ObservationKind::Angle:
                $b = $this->second;
                $this->aim($b, $o, (string) $o->back);
                $this->aim($s, $o, $o->to);
                $q = 1.0 / ($s->plan * $s->plan);
                $row = $s->chain($s->north * $q, -$s->east * $q, 0.0);
                $q = 1.0 / ($b->plan * $b->plan);
                $minus = $b->chain(-$b->north * $q, $b->east * $q, 0.0);

                return [[$s->azimuth() - $b->azimuth(), [
                    $row[0] + $minus[0], $row[1] + $minus[1], $row[2] + $minus[2],
                    $row[3], $row[4], $row[5], $minus[3], $minus[4], $minus[5],
                ], 0.0]];
            case ObservationKind::SlopeDistance:
                $this->aim($s, $o, $o->to);
                $q = 1.0 / $s->length;

                return [[$s->length, $s->chain($s->east * $q, $s->north * $q, $s->up * $q), 0.0]];
            case ObservationKind::HorizontalDistance:
                $this->aim($s, $o, $o->to);
                if ($this->network->frame->isPlane()) {
                    $q = 1.0 / $s->plan;

                    return [[$s->plan, $s->chain($s->east * $q, $s->north * $q, 0.0), 0.0]];
                }
                // The chord reduced to the mean height of its ends: sqrt(s^2 - dh^2), equal to
                // s cos(slope) within (dh / 2R)^2 of its length.
                $dh = $this->state->h[$to] - $this->state->h[$from];
                $d = sqrt(max($s->length * $s->length - $dh * $dh, 1e-12));
                $q = 1.0 / $d;
                $row = $s->chain($s->east * $q, $s->north * $q, $s->up * $q);
                $row[2] += $dh * $q;
                $row[5] -= $dh * $q;

                return [[$d, $row, 0.0]];
            case ObservationKind::Zenith:
                $this->aim($s, $o, $o->to);
                $q = 1.0 / ($s->length * $s->length);
                $gE = $s->plan > 0.0 ? $s->east * $s->up / $s->plan * $q : 0.0;
                $gN = $s->plan > 0.0 ? $s->north * $s->up / $s->plan * $q : 0.0;
                $gU = -$s->plan * $q;
                $z = atan2($s->plan, $s->up);
                $bend = $this->network->settings->refraction / (2.0 * $s->meanRadius);
                if ($bend > 0.0 || $bend < 0.0) {
                    $z -= $bend * $s->length;
                    $gE -= $bend * $s->east / $s->length;
                    $gN -= $bend * $s->north / $s->length;
                    $gU -= $bend * $s->up / $s->length;
                }

                return [[$z, $s->chain($gE, $gN, $gU), 0.0]];
        }
    }

    /**
     * A-priori standard deviation of a scalar observation, in metres or radians: its own, or the setting's with centring.
     */
    public function standardDeviation(Observation $o): ?float
    {
        $settings = $this->network->settings;
        if (null !== $o->sd) {
            return $o->kind->isAngular() ? deg2rad($o->sd) : $o->sd;
        }
        if (ObservationKind::HeightDifference === $o->kind || ObservationKind::Vector === $o->kind) {
            return null;
        }
        $s = $this->sight;
        $this->instrumentHeight = $o->instrumentHeight;
        $this->targetHeight = $o->targetHeight;
        $this->aim($s, $o, $o->to);
        $ci = $settings->instrumentCentring ** 2;
        $ct = $settings->targetCentring ** 2;
        $ch = 2.0 * $settings->heightCentring ** 2;
        switch ($o->kind) {
            case ObservationKind::Direction:
            case ObservationKind::Azimuth:
                $sd = ObservationKind::Azimuth === $o->kind ? $settings->azimuthSd ?? $settings->directionSd : $settings->directionSd;

                return null === $sd ? null : sqrt(deg2rad($sd) ** 2 + ($ci + $ct) / $s->plan ** 2);
            case ObservationKind::Angle:
                $sd = $settings->angleSd ?? $settings->directionSd;
                if (null === $sd) {
                    return null;
                }
                $b = $this->second;
                $this->aim($b, $o, (string) $o->back);
                $qs = 1.0 / $s->plan ** 2;
                $qb = 1.0 / $b->plan ** 2;
                $gE = $s->north * $qs - $b->north * $qb;
                $gN = -$s->east * $qs + $b->east * $qb;

                return sqrt(deg2rad($sd) ** 2 + ($gE * $gE + $gN * $gN) * $ci + ($qs + $qb) * $ct);
            case ObservationKind::Zenith:
                $sd = $settings->zenithSd ?? $settings->directionSd;
                $q = 1.0 / $s->length ** 2;

                return null === $sd ? null : sqrt(deg2rad($sd) ** 2 + ($s->up * $q) ** 2 * ($ci + $ct) + ($s->plan * $q) ** 2 * $ch);
            case ObservationKind::SlopeDistance:
            case ObservationKind::HorizontalDistance:
                if (null === $settings->distanceSd) {
                    return null;
                }
                [$constant, $ppm] = $settings->distanceSd;
                $horizontal = ObservationKind::HorizontalDistance === $o->kind;
                $length = $horizontal ? $s->plan : $s->length;
                $sine = $horizontal ? 0.0 : $s->up / $s->length;

                return sqrt($constant ** 2 + (1e-6 * $ppm * $length) ** 2 + (1.0 - $sine * $sine) * ($ci + $ct) + $sine * $sine * $ch);
            default:
                return null;
        }
    }

    /**
     * Aims at an end of the observation: from mark to mark where only the plan counts, else from instrument to target.
     *
     * @throws UnusableInput a sight between stations at one place has no direction and no derivative
     */
    private function aim(Sight $sight, Observation $o, string $end): void
    {
        $index = $this->network->stationIndex;
        $planOnly = $o->kind->isPlanOnly();
        $sight->aim($index[$o->from], $index[$end], $planOnly ? 0.0 : $this->instrumentHeight, $planOnly ? 0.0 : $this->targetHeight);
        if (($planOnly ? $sight->plan : $sight->length) < self::SAME_PLACE) {
            throw $this->samePlace($o, $end);
        }
    }

    public function samePlace(Observation $o, string $end): UnusableInput
    {
        return new UnusableInput('observations', \sprintf(
            'a %s runs between %s and %s, which lie at one place; correct their coordinates or their names',
            $o->kind->value, $o->from, $end,
        ));
    }

    /** @return list<array{float, list<float>, float}> */
    private function vector(int $from, int $to): array
    {
        $state = $this->state;
        $rows = [];
        for ($c = 0; $c < 3; ++$c) {
            $row = [];
            foreach ([[$from, -1.0], [$to, 1.0]] as [$s, $sign]) {
                // Column c of the axes brings the horizon's shift back to Cartesian component c.
                for ($k = 0; $k < 3; ++$k) {
                    $sum = 0.0;
                    for ($r = 0; $r < 3; ++$r) {
                        $sum += $state->axes[9 * $s + 3 * $r + $c] * $state->jacobian[9 * $s + 3 * $r + $k];
                    }
                    $row[] = $sign * $sum;
                }
            }
            $rows[] = [$state->position[3 * $to + $c] - $state->position[3 * $from + $c], $row, 0.0];
        }

        return $rows;
    }
}
