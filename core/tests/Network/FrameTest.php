<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Fault\UnusableInput;
use Mensura\Network\Deflection;
use Mensura\Network\Frame;
use Mensura\Network\GridFrame;
use Mensura\Network\PlaneFrame;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Tests\Reference\Systems;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Frames carry grid coordinates into space and back; the adjustment trusts their derivatives. */
final class FrameTest extends TestCase
{
    /** @return iterable<string, array{Frame, float, float, float}> */
    public static function frames(): iterable
    {
        $geoid = GridFiles::installed()->geoid('/usr/share/proj/egm96_15.gtx');
        yield 'plane' => [new PlaneFrame(), 1000.0, 2000.0, 50.0];
        yield 'transverse Mercator' => [new GridFrame(Systems::horizontal('EPSG:25830')), 493120.412, 6028061.238, 236.418];
        yield 'the same above the geoid' => [new GridFrame(Systems::horizontal('EPSG:25830'), $geoid), 493120.412, 6028061.238, 183.494];
        yield 'with the plumb line of the geoid' => [
            new GridFrame(Systems::horizontal('EPSG:25830'), $geoid, Deflection::ofGeoid()), 493120.412, 6028061.238, 183.494,
        ];
        yield 'with a measured plumb line' => [
            new GridFrame(Systems::horizontal('EPSG:2056'), null, Deflection::measured(12.0, -18.0)), 2600000.0, 1200000.0, 540.0,
        ];
        yield 'far from its meridian' => [new GridFrame(Systems::horizontal('EPSG:25829')), 882417.114, 6044073.304, 236.418];
        yield 'a cone' => [new GridFrame(Systems::horizontal('EPSG:2154')), 900000.0, 6600000.0, 420.0];
        yield 'a cone counted from Paris' => [new GridFrame(Systems::horizontal('EPSG:27561')), 600000.0, 200000.0, 30.0];
        yield 'an oblique one' => [new GridFrame(Systems::horizontal('EPSG:2056')), 2600000.0, 1200000.0, 540.0];
        yield 'south of the equator, above the geoid' => [
            new GridFrame(Systems::horizontal('EPSG:32756'), $geoid), 334000.0, 6250000.0, 12.0,
        ];
    }

    #[DataProvider('frames')]
    public function testThereAndBack(Frame $frame, float $e, float $n, float $h): void
    {
        [$a, $b, $c] = $frame->coordinates(...$frame->geometry($e, $n, $h)['position']);
        self::assertEqualsWithDelta($e, $a, 1e-6);
        self::assertEqualsWithDelta($n, $b, 1e-6);
        self::assertEqualsWithDelta($h, $c, 1e-6);
    }

    /** The horizon is a right-handed frame of unit vectors: east, north, up. */
    #[DataProvider('frames')]
    public function testTheHorizonIsRightAngled(Frame $frame, float $e, float $n, float $h): void
    {
        $axes = array_chunk($frame->geometry($e, $n, $h)['axes'], 3);
        foreach ($axes as $i => $u) {
            foreach ($axes as $j => $v) {
                self::assertEqualsWithDelta($i === $j ? 1.0 : 0.0, $u[0] * $v[0] + $u[1] * $v[1] + $u[2] * $v[2], 1e-14);
            }
        }
        [$u, $v, $w] = $axes;
        self::assertEqualsWithDelta(
            $w,
            [$u[1] * $v[2] - $u[2] * $v[1], $u[2] * $v[0] - $u[0] * $v[2], $u[0] * $v[1] - $u[1] * $v[0]],
            1e-14,
        );
    }

    /** The Jacobian against the positions of neighbours a metre away on either side. */
    #[DataProvider('frames')]
    public function testTheJacobianIsTheDerivative(Frame $frame, float $e, float $n, float $h): void
    {
        $g = $frame->geometry($e, $n, $h);
        foreach ([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]] as $k => [$de, $dn, $dh]) {
            $plus = $frame->geometry($e + $de, $n + $dn, $h + $dh)['position'];
            $minus = $frame->geometry($e - $de, $n - $dn, $h - $dh)['position'];
            for ($row = 0; $row < 3; ++$row) {
                $along = 0.0;
                for ($i = 0; $i < 3; ++$i) {
                    $along += $g['axes'][3 * $row + $i] * ($plus[$i] - $minus[$i]) / 2.0;
                }
                self::assertEqualsWithDelta($along, $g['jacobian'][3 * $row + $k], 2e-7, "row $row, unknown $k");
            }
        }
    }

    /**
     * Zenith angles and azimuths from the plumb line against those from the normal: z less xi cos A + eta sin A, and A plus
     * eta tan(lat) + (xi sin A - eta cos A) cot z (Heiskanen and Moritz 1967, section 5-4; from memory).
     */
    public function testTheDeflectionTurnsAnglesAsTheBookSays(): void
    {
        $system = Systems::horizontal('EPSG:25830');
        [$xi, $eta] = [25.0, -40.0];
        $plain = new GridFrame($system);
        $turned = new GridFrame($system, null, Deflection::measured($xi, $eta));
        foreach ([[493500.0, 6028800.0, 900.0], [492000.0, 6027000.0, 100.0], [494000.0, 6027500.0, 236.0]] as [$e, $n, $h]) {
            $aim = static function (GridFrame $frame) use ($e, $n, $h): array {
                $at = $frame->geometry(493120.412, 6028061.238, 236.418);
                $to = $frame->geometry($e, $n, $h)['position'];
                $local = [];
                for ($row = 0; $row < 3; ++$row) {
                    $local[] = $at['axes'][3 * $row] * ($to[0] - $at['position'][0])
                        + $at['axes'][3 * $row + 1] * ($to[1] - $at['position'][1])
                            + $at['axes'][3 * $row + 2] * ($to[2] - $at['position'][2]);
                }

                return [atan2($local[0], $local[1]), atan2(hypot($local[0], $local[1]), $local[2]), (float) $at['lat']];
            };
            [$azimuth, $zenith, $lat] = $aim($plain);
            [$seenAzimuth, $seenZenith] = $aim($turned);
            $second = \M_PI / 648000.0;
            $byBook = -($xi * cos($azimuth) + $eta * sin($azimuth));
            self::assertEqualsWithDelta($byBook, ($seenZenith - $zenith) / $second, 0.02);
            $byBook = $eta * tan($lat) + ($xi * sin($azimuth) - $eta * cos($azimuth)) / tan($zenith);
            self::assertEqualsWithDelta($byBook, ($seenAzimuth - $azimuth) / $second, 0.02);
        }
    }

    /**
     * The geoid of a model against its heights a kilometre on either side: a metre up in a kilometre turns the plumb
     * line by 206 seconds.
     */
    public function testTheGeoidTurnsThePlumbLineAwayFromWhereItRises(): void
    {
        $geoid = GridFiles::installed()->geoid('/usr/share/proj/egm96_15.gtx');
        $system = Systems::horizontal('EPSG:25830');
        $up = static fn (?Deflection $d): array => \array_slice(
            (new GridFrame($system, $geoid, $d))->geometry(493120.0, 6028061.0, 100.0)['axes'],
            6,
        );
        $frame = new GridFrame($system, $geoid);
        $at = $frame->geometry(493120.0, 6028061.0, 100.0);
        $undulation = static fn (float $e, float $n): float => $frame->undulation(
            (float) $frame->geometry($e, $n, 100.0)['lat'], (float) $frame->geometry($e, $n, 100.0)['lon'],
        );
        $east = ($undulation(494120.0, 6028061.0) - $undulation(492120.0, 6028061.0)) / 2000.0;
        $north = ($undulation(493120.0, 6029061.0) - $undulation(493120.0, 6027061.0)) / 2000.0;
        $turned = $up(Deflection::ofGeoid());
        foreach ([0 => -$east, 1 => -$north] as $row => $slope) {
            $part = 0.0;
            for ($i = 0; $i < 3; ++$i) {
                $part += $at['axes'][3 * $row + $i] * $turned[$i];
            }
            self::assertEqualsWithDelta($slope, $part, 2e-7);
            self::assertGreaterThan(1e-6, abs($part));
        }
        self::assertSame($up(null), $up(Deflection::none()));
    }

    /** One metre of UTM near its central meridian is 1.0004 metres on the ellipsoid: common practice. */
    public function testTheScaleOfTheZoneIsInTheJacobian(): void
    {
        $g = (new GridFrame(Systems::horizontal('EPSG:25830')))->geometry(500000.0, 6028061.0, 0.0);
        self::assertEqualsWithDelta(1.0 / 0.9996, $g['jacobian'][0], 1e-8);
        self::assertEqualsWithDelta(1.0 / 0.9996, $g['jacobian'][4], 1e-8);
        self::assertSame(1.0, $g['jacobian'][8]);
    }

    /** A mark higher by h is farther from its neighbour by (1 + h/R). */
    public function testHeightWidensTheJacobian(): void
    {
        $frame = new GridFrame(Systems::horizontal('EPSG:25830'));
        $low = $frame->geometry(500000.0, 6028061.0, 0.0)['jacobian'][0];
        $high = $frame->geometry(500000.0, 6028061.0, 1000.0)['jacobian'][0];
        self::assertEqualsWithDelta(1000.0 / 6392000.0, $high / $low - 1.0, 1e-7);
    }

    /** A geoid that slopes tilts what "the same height" means. */
    public function testTheSlopeOfTheGeoidIsInTheJacobian(): void
    {
        $geoid = GridFiles::installed()->geoid('/usr/share/proj/egm96_15.gtx');
        $frame = new GridFrame(Systems::horizontal('EPSG:25830'), $geoid);
        $g = $frame->geometry(493120.412, 6028061.238, 183.494);
        $n0 = $frame->undulation($g['lat'], $g['lon']);
        $east = $frame->geometry(494120.412, 6028061.238, 183.494);
        self::assertEqualsWithDelta(($frame->undulation($east['lat'], $east['lon']) - $n0) / 1000.0, $g['jacobian'][6], 2e-6);
        self::assertNotSame(0.0, $g['jacobian'][6]);
        self::assertSame(0.0, (new GridFrame(Systems::horizontal('EPSG:25830')))->geometry(493120.412, 6028061.238, 236.0)['jacobian'][6]);
    }

    public function testThePlaneIsFlat(): void
    {
        $frame = new PlaneFrame();
        self::assertTrue($frame->isPlane());
        $g = $frame->geometry(3.0, 4.0, 5.0);
        self::assertSame([3.0, 4.0, 5.0], $g['position']);
        self::assertSame([1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0], $g['jacobian']);
    }

    public function testSystemsAnAdjustmentCannotUse(): void
    {
        foreach ([
            'EPSG:4258' => '/is geographic; an adjustment needs a projected system in metres/',
            'EPSG:2225' => '/is in US survey foot; an adjustment needs a projected system in metres/',
            'EPSG:4936' => '/is geocentric/',
        ] as $code => $message) {
            try {
                new GridFrame(Systems::horizontal($code));
                self::fail($code);
            } catch (UnusableInput $e) {
                self::assertMatchesRegularExpression($message, $e->getMessage());
            }
        }
    }

    public function testAStationOutsideTheProjectionOrTheGeoidIsNamed(): void
    {
        $frame = new GridFrame(Systems::horizontal('EPSG:25830'));
        try {
            $frame->geometry(1e8, 1e8, 0.0);
            self::fail('no error');
        } catch (UnusableInput $e) {
            self::assertMatchesRegularExpression(
                '/a station at e 100000000\.000, n 100000000\.000 is outside EPSG:25830/',
                $e->getMessage(),
            );
        }
        $small = new \Mensura\Reference\Grid\GeoidGrid('small.gtx', 10.0, 10.0, 1.0, 1.0, 2, 2, pack('G4', 1.0, 1.0, 1.0, 1.0));
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/small\.gtx/');
        (new GridFrame(Systems::horizontal('EPSG:25830'), $small))->geometry(493120.0, 6028061.0, 0.0);
    }
}
