<?php

declare(strict_types=1);

namespace Mensura\Tests\TotalStation;

use Mensura\Fault\UnusableInput;
use Mensura\TotalStation\Eccentricity;
use PHPUnit\Framework\TestCase;

/** Against coordinates: the sight to the target, moved by the offset, is the sight to the mark (common practice). */
final class EccentricityTest extends TestCase
{
    public function testTheSightLeadsToTheMark(): void
    {
        // 300 m away in azimuth 40 degrees and 12 m higher; the mark lies 0.35 m to the right, 0.20 m nearer, 0.10 m lower.
        $azimuth = 40.0;
        $plan = 300.0;
        $slope = hypot($plan, 12.0);
        $zenith = rad2deg(atan2($plan, 12.0));
        [$turn, $newZenith, $newSlope] = (new Eccentricity(0.35, -0.20, -0.10))->applied($zenith, $slope);

        $a = deg2rad($azimuth);
        $e = $plan * sin($a) + 0.35 * cos($a) - 0.20 * sin($a);
        $n = $plan * cos($a) - 0.35 * sin($a) - 0.20 * cos($a);
        $u = 12.0 - 0.10;
        self::assertEqualsWithDelta(rad2deg(atan2($e, $n)), $azimuth + $turn, 1e-12);
        self::assertEqualsWithDelta(rad2deg(atan2(hypot($e, $n), $u)), $newZenith, 1e-12);
        self::assertEqualsWithDelta(sqrt($e * $e + $n * $n + $u * $u), $newSlope, 1e-10);
    }

    /** The centre of a mast of 0.25 m radius, sighted on its face: the offset lies along the line alone. */
    public function testOnwardsAloneTurnsNothing(): void
    {
        [$turn, $zenith, $slope] = (new Eccentricity(0.0, 0.25, 0.0))->applied(90.0, 50.0);
        self::assertSame([0.0, 90.0, 50.25], [$turn, $zenith, $slope]);
    }

    public function testAnOffsetPastTheInstrumentIsRefused(): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/past the instrument, 2.000 m away/');
        (new Eccentricity(0.0, -2.5, 0.0))->applied(90.0, 2.0);
    }
}
