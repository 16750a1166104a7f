<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Network\NetworkDefinition;
use Mensura\Network\VarianceComponents;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use PHPUnit\Framework\TestCase;

/** Groups whose stated precision is wrong by a known factor get it back; the sum of their statistics is then their redundancy. */
final class VarianceComponentsTest extends TestCase
{
    public function testTheFactorThatWasHidden(): void
    {
        $simulated = (new SimulatedNetwork(77, 5, 4))->definition();
        $hidden = ['direction' => 3.0, 'zenith' => 0.5, 'slope-distance' => 1.0, 'height-difference' => 2.0, 'vector' => 0.7];
        $stated = array_map(
            static fn (Observation $o): Observation => $o->with(['sdFactor' => 1.0 / $hidden[$o->kind->value]]), $simulated->observations,
        );
        $network = new NetworkDefinition($simulated->frame, $simulated->settings, $simulated->stations, $stated);
        $groups = array_map(static fn (Observation $o): string => $o->kind->value, $stated);
        [$found, $result] = VarianceComponents::of($network, $groups, false);
        foreach ($hidden as $kind => $factor) {
            // The estimate of a standard deviation is good to 1/sqrt(2 r) of itself; four times that.
            self::assertEqualsWithDelta(1.0, $found[$kind]['factor'] / $factor, 4.0 / sqrt(2.0 * $found[$kind]['redundancy']), $kind);
        }
        self::assertEqualsWithDelta(1.0, $result->varianceFactor, 0.02);
        foreach ($result->groups as $group) {
            self::assertEqualsWithDelta(1.0, $group['varianceFactor'], 0.03, $group['type']);
        }
    }

    public function testAGroupThatNothingControlsKeepsItsWeight(): void
    {
        $simulated = (new SimulatedNetwork(78))->definition();
        $groups = array_map(
            static fn (Observation $o): string => ObservationKind::Direction === $o->kind ? $o->from
                .$o->to : 'rest', $simulated->observations,
        );
        [$found] = VarianceComponents::of($simulated, $groups, false);
        foreach ($found as $group => ['factor' => $factor, 'redundancy' => $redundancy]) {
            if ($redundancy < 2.0) {
                self::assertSame(1.0, $factor, (string) $group);
            }
        }
        self::assertEqualsWithDelta(1.0, $found['rest']['factor'], 0.2);
    }
}
