<?php

declare(strict_types=1);

namespace Mensura\Tests\Gnss;

use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Klobuchar;
use Mensura\Gnss\LeapSeconds;
use Mensura\Gnss\Signal;
use Mensura\Gnss\Troposphere;
use PHPUnit\Framework\TestCase;

/** Time, atmosphere and signals against facts of the trade and published numbers. */
final class ModelsTest extends TestCase
{
    /** GPS week 2200 began on 2022-03-06; the epoch of GPS time is 1980-01-06 (common practice). */
    public function testWeeksAreCountedFromTheEpoch(): void
    {
        $time = GpsTime::civil(2022, 3, 6, 0, 0, 0.0);
        self::assertSame([2200, 0.0], [$time->week, $time->seconds]);
        self::assertSame('gps:2022-03-05T23:59:59.500', (string) $time->plus(-0.5));
        self::assertSame(0.5, $time->since($time->plus(-0.5)));
        self::assertSame([0, 0.0], [GpsTime::civil(1980, 1, 6, 0, 0, 0.0)->week, GpsTime::civil(1980, 1, 6, 0, 0, 0.0)->seconds]);
        self::assertSame('gps:2031-05-04T09:00:00.000', (string) GpsTime::civil(2031, 5, 4, 8, 59, 60.0));
    }

    /** IERS Bulletin C: 18 seconds since 2017, 17 since July 2015, none in 1980. */
    public function testLeapSeconds(): void
    {
        self::assertSame([18, 17, 17, 0], [
            LeapSeconds::at('2031-05-04'), LeapSeconds::at('2016-12-31'), LeapSeconds::at('2015-07-01'), LeapSeconds::at('1980-06-01'),
        ]);
    }

    /** About 2.3 m of dry delay at sea level, 2.4 m with the wet part (common practice). */
    public function testTheTroposphere(): void
    {
        $sea = new Troposphere(deg2rad(45.0), 0.0);
        self::assertEqualsWithDelta(2.307, $sea->zenith[0], 0.005);
        self::assertEqualsWithDelta(0.1, $sea->zenith[1], 0.06);
        self::assertEqualsWithDelta($sea->zenith[0] + $sea->zenith[1], $sea->delay(\M_PI / 2.0), 1e-9);
        // Niell (1996): at 5 degrees and mid-latitude the dry mapping is 10.15, the wet one 10.75 (from memory).
        $low = deg2rad(5.0);
        self::assertEqualsWithDelta(10.15 * $sea->zenith[0] + 10.75 * $sea->zenith[1], $sea->delay($low), 0.08);
        // A kilometre up there is 11 or 12 % less air (common practice).
        self::assertEqualsWithDelta(0.887, (new Troposphere(deg2rad(45.0), 1000.0))->zenith[0] / $sea->zenith[0], 0.005);
    }

    /** At night the model is 5 ns in the zenith, 1.5 m; in the afternoon more (IS-GPS-200, 20.3.3.5.2.5). */
    public function testTheBroadcastIonosphere(): void
    {
        $k = [1.0e-8, 0.0, 0.0, 0.0, 90000.0, 0.0, 0.0, 0.0];
        $night = Klobuchar::delay($k, deg2rad(40.0), 0.0, 0.0, \M_PI / 2.0, 3600.0 * 2.0);
        self::assertEqualsWithDelta(Signal::LIGHT * 5e-9 * (1.0 + 16.0 * 0.03 ** 3), $night, 1e-6);
        $day = Klobuchar::delay($k, deg2rad(40.0), 0.0, 0.0, \M_PI / 2.0, 50400.0);
        self::assertEqualsWithDelta(Signal::LIGHT * (5e-9 + 1e-8), $day, 0.01);
        self::assertGreaterThan(2.5 * $day, Klobuchar::delay($k, deg2rad(40.0), 0.0, 0.0, deg2rad(10.0), 50400.0));
    }

    /** RINEX 3.05: band 2 of BeiDou is B1I at 1561.098 MHz; GLONASS has no one frequency. */
    public function testFrequencies(): void
    {
        self::assertSame(1561.098e6, Signal::frequency('C', '2'));
        self::assertSame(1227.60e6, Signal::frequency('G', '2'));
        self::assertNull(Signal::frequency('R', '1'));
    }
}
