<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Demo\Gnss\LogWriter;
use Demo\Gnss\Receiver;
use Demo\Gnss\Sky;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\NavigationWriter;
use Mensura\Exchange\Rinex\ObservationFile;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\ObservationWriter;
use Mensura\Exchange\Rinex\Recorded;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\TestCase;

/** RINEX out of receivers' own files: RTCM 3 streams and receiver logs. */
final class RecordedTest extends TestCase
{
    private const BASE = [3901600.0, 300100.0, 5020020.0];

    /** The worked example of a message 1005 in RTCM 10403 (memory): station 2003 and its antenna reference point. */
    private const EXAMPLE_1005 = 'd300133ed7d30202980edeef34b4bd62ac0941986f33360b98';

    public function testTheExampleOfTheStandardIsRead(): void
    {
        $r = Recorded::read((string) hex2bin(self::EXAMPLE_1005), 'x.rtcm');
        self::assertSame([1005 => 1], $r->messages);
        self::assertSame('2003', $r->file->marker);
        foreach ([1114104.5999, -4850729.7108, 3975521.4643] as $i => $value) {
            self::assertEqualsWithDelta($value, ($r->file->approximate ?? [])[$i], 1e-6);
        }
    }

    public function testObservationsAndEphemeridesOfAStream(): void
    {
        $one = ['code' => [23456789.123, 23456793.456], 'phase' => [23456788.9876, 23456787.6543], 'strength' => 44.25, 'lock' => 300];
        $two = ['code' => [20345678.25, 20345680.5], 'phase' => [20345677.125, 20345676.0625], 'strength' => 50.5, 'lock' => 400];
        $again = ['lock' => 20] + $two; // its lock began anew
        $stream = "noise\x01".RtcmEncoder::gps().RtcmEncoder::msm7(43200.0, [5 => $one, 17 => $two]).RtcmEncoder::gps()
            .RtcmEncoder::msm7(43230.0, [5 => $one, 17 => $again]);
        $damaged = RtcmEncoder::msm7(43260.0, [5 => $one]);
        $damaged[20] = \chr(\ord($damaged[20]) ^ 1);
        $r = Recorded::read($stream.$damaged, 'x.rtcm');
        self::assertSame([1019 => 2, 1077 => 2], $r->messages);
        self::assertCount(1, $r->ephemerides, 'What is said again is one record.');
        self::assertStringContainsString('1 message(s) are damaged', $r->warnings[0]);
        $f = $r->file;
        self::assertSame(['gps:2031-05-04T12:00:00.000', 'gps:2031-05-04T12:00:30.000'], array_map(strval(...), $f->times));
        self::assertSame(['G05', 'G17', 'G05', 'G17'], $f->satellite);
        // The scales of the tables: half a millimetre for fine codes, a tenth for phases.
        self::assertEqualsWithDelta(23456789.123, self::value($f, 0, 'C1C'), 0.0006);
        self::assertEqualsWithDelta(23456793.456, self::value($f, 0, 'C2W'), 0.0006);
        self::assertEqualsWithDelta(23456788.9876 / (299792458.0 / 1575.42e6), self::value($f, 0, 'L1C'), 0.001);
        self::assertEqualsWithDelta(20345676.0625 / (299792458.0 / 1227.60e6), self::value($f, 1, 'L2W'), 0.001);
        self::assertEqualsWithDelta(44.25, self::value($f, 0, 'S1C'), 1e-9);
        self::assertSame(0, $f->lossOfLock[$f->valueStart[2] + (int) $f->place('G', 'L1C')]);
        self::assertSame(1, $f->lossOfLock[$f->valueStart[3] + (int) $f->place('G', 'L1C')]);
        $e = array_values($r->ephemerides)[0];
        self::assertSame(['G05', 2678], [$e->satellite, $e->orbitTime->week]);
        self::assertEqualsWithDelta(43200.0, $e->secondsOfWeek, 1e-9);
        self::assertEqualsWithDelta(2702069850 / 2 ** 19, $e->sqrtA, 1e-9);
        self::assertEqualsWithDelta(0.01, $e->eccentricity, 1e-9);
        self::assertEqualsWithDelta(656175672 / 2 ** 31 * \M_PI, $e->inclination, 1e-12);
        self::assertEqualsWithDelta(-22000 / 2 ** 43 * \M_PI, $e->nodeRate, 1e-20);
        self::assertEqualsWithDelta(-20.0, $e->crs, 1e-9);
        self::assertEqualsWithDelta(200.0, $e->crc, 1e-9);
        self::assertEqualsWithDelta(123456 / 2 ** 31, $e->clockBias, 1e-15);
        // Written as RINEX and read back, the satellite is where it was.
        $back = NavigationReader::read(NavigationWriter::write([$e], '3.04'), 'n')->ephemerides[0];
        $short = NavigationReader::read(NavigationWriter::write([$e], '2.11'), 'n')->ephemerides[0];
        foreach ([0, 1, 2] as $i) {
            self::assertEqualsWithDelta($e->at($e->orbitTime->plus(600.0))[$i], $back->at($e->orbitTime->plus(600.0))[$i], 0.001);
            self::assertEqualsWithDelta($e->at($e->orbitTime->plus(600.0))[$i], $short->at($e->orbitTime->plus(600.0))[$i], 0.001);
        }
    }

    public function testAStreamWithoutAWeekAsksForItsDate(): void
    {
        $stream = RtcmEncoder::msm7(100.0, [5 => ['code' => [2.2e7, 2.2e7], 'phase' => [2.2e7, 2.2e7], 'strength' => 40.0, 'lock' => 1]]);
        self::assertSame('gps:2031-05-04T00:01:40.000', (string) Recorded::read($stream, 'x', 2678)->file->times[0]);
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/names no week.*--date/');
        Recorded::read($stream, 'x');
    }

    /** What the simulated receiver logs comes out as the RINEX it would have written. */
    public function testAReceiverLogIsTheSameAsItsRinex(): void
    {
        $sky = new Sky(3, systems: 'GE');
        $rinex = $sky->observations(new Receiver('LOG1', self::BASE, 20, 30.0, 1e-5, Receiver::EVERYTHING, height: 1.5));
        $log = LogWriter::write($rinex, $sky->navigation());
        $r = Recorded::read($log, 'x.log');
        $expected = ObservationReader::read($rinex, 'x.rnx');
        self::assertSame(['LOG1', 1.5], [$r->file->marker, $r->file->antennaOffset[0]]);
        self::assertCount(54, $r->ephemerides);
        foreach (ObservationWriter::VERSIONS as $version) {
            $back = ObservationReader::read((new ObservationWriter())->write($r->file, $version), 'back');
            self::assertEquals($expected->times, $back->times);
            self::assertSame(self::sorted($expected->satellite), self::sorted($back->satellite));
            $at = (int) array_search('G05', $back->satellite, true);
            $was = (int) array_search('G05', $expected->satellite, true);
            self::assertEqualsWithDelta(self::value($expected, $was, 'C1C'), self::value($back, $at, 'C1C'), 1e-9, $version);
            self::assertEqualsWithDelta(self::value($expected, $was, 'L2W'), self::value($back, $at, 'L2W'), 1e-9, $version);
        }
        // A battery that gave out costs the last line; a damaged line in the middle is named.
        $cut = Recorded::read(substr($log, 0, (int) strpos($log, '"ephemeris"') + 40), 'x.log');
        self::assertStringContainsString('the last, is cut off', implode(' ', $cut->warnings));
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/x.log line 2: is not JSON/');
        Recorded::read((string) preg_replace('/\n\{"record"/', "\n{record", $log, 1), 'x.log');
    }

    private static function value(ObservationFile $f, int $row, string $type): float
    {
        return $f->value[$f->valueStart[$row] + (int) $f->place($f->satellite[$row][0], $type)];
    }

    /**
     * @param list<string> $list
     *
     * @return list<string>
     */
    private static function sorted(array $list): array
    {
        sort($list);

        return $list;
    }
}
