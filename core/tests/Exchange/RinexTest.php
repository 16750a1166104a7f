<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** RINEX 2.11 and 3.0x as their documents lay out the columns (from memory). */
final class RinexTest extends TestCase
{
    private const THREE = [
        '     3.04           OBSERVATION DATA    M: MIXED            RINEX VERSION / TYPE',
        'PEG 7                                                       MARKER NAME',
        '  3900000.1000   300000.2000  5018000.3000                  APPROX POSITION XYZ',
        '        1.5430        0.0100       -0.0200                  ANTENNA: DELTA H/E/N',
        'G    4 C1C L1C C2W L2W                                      SYS / # / OBS TYPES',
        'E    2 C1X L1X                                              SYS / # / OBS TYPES',
        '  2031     5     4     9     0    0.0000000     GPS         TIME OF FIRST OBS',
        '                                                            END OF HEADER',
    ];

    public function testVersionThree(): void
    {
        $file = ObservationReader::read(implode("\r\n", [...self::THREE,
            '> 2031 05 04 09 00  0.0000000  0  3', 'G05  20000000.123 7 105000000.12317                  80000000.500',
            'R11  19000000.000', 'E 9  23000000.000   120000000.000', '> 2031 05 04 09 00 30.0000000  0  1', 'G05  20000100.000',
        ]), 'a.rnx');
        self::assertSame('PEG 7', $file->marker);
        self::assertSame([1.543, 0.01, -0.02], $file->antennaOffset);
        self::assertSame([3900000.1, 300000.2, 5018000.3], $file->approximate);
        self::assertSame(['G05', 'E09', 'G05'], $file->satellite);
        self::assertSame(['R11' => true], $file->otherSatellites);
        self::assertSame([0, 2, 3], $file->epochStart);
        self::assertSame([20000000.123, 105000000.123], \array_slice($file->value, 0, 2));
        self::assertNan($file->value[2]);
        self::assertSame(80000000.5, $file->value[3]);
        self::assertSame([0, 1, 0, 0], \array_slice($file->lossOfLock, 0, 4));
        self::assertSame(23000000.0, $file->value[$file->valueStart[1]]);
        self::assertSame('gps:2031-05-04T09:00:30.000', (string) $file->times[1]);
    }

    public function testVersionTwoWithMoreThanTwelveSatellitesAndTypesOnTwoLines(): void
    {
        $sats = array_map(static fn (int $k): string => \sprintf('G%02d', $k), range(1, 13));
        $lines = [
            '     2.11           OBSERVATION DATA    G (GPS)             RINEX VERSION / TYPE',
            '     6    C1    L1    P2    L2    S1    S2                  # / TYPES OF OBSERV',
            '                                                            END OF HEADER',
            ' 31  5  4  9  0  0.0000000  0 13'.implode('', \array_slice($sats, 0, 12)), str_repeat(' ', 32).$sats[12],
        ];
        foreach ($sats as $k => $unused) {
            $lines[] = \sprintf('%14.3F %s%14.3F  %14.3F  %14.3F  %14.3F  ', 2e7 + $k, ' ', 1e8 + $k, 2e7, 8e7, 45.0);
            $lines[] = \sprintf('%14.3F', 40.0);
        }
        $file = ObservationReader::read(implode("\n", $lines), 'a.11o');
        self::assertSame($sats, $file->satellite);
        self::assertSame(['C1C', 'L1C', 'C2W', 'L2W', 'S1C', 'S2W'], $file->types['G']);
        self::assertSame([2e7 + 12, 1e8 + 12, 2e7, 8e7, 45.0, 40.0], \array_slice($file->value, $file->valueStart[12], 6));
        self::assertSame(2031, (int) substr((string) $file->times[0], 4, 4));
    }

    public function testWhatIsOddIsSaidAndTheRestIsRead(): void
    {
        $epoch = static fn (string $time, string ...$rows): array => [
            "> 2031 05 04 09 00 $time.0000000  0".\sprintf('%3d', \count($rows)), ...$rows,
        ];
        $row = 'G05  20000000.123';
        $file = ObservationReader::read(implode("\n", [
            ...self::THREE, ...$epoch(' 0', $row), ...$epoch(' 0', $row), '>                              4  1',
            'OTHER                                                       MARKER NAME', ...$epoch('30', $row),
            ...$epoch('40', $row, $row), // one of its rows will be cut off
        ]), 'a.rnx');
        self::assertCount(3, $file->times);
        $cut = ObservationReader::read(implode("\n", [
            ...self::THREE, ...$epoch(' 0', $row), '> 2031 05 04 09 00 30.0000000  0  2', $row,
        ]), 'a.rnx');
        self::assertCount(1, $cut->times);
        self::assertCount(1, $cut->satellite);
        self::assertStringContainsString('a.rnx line 12: the last epoch is cut off', $cut->warnings[0]);
        self::assertStringContainsString('a.rnx line 11: an epoch is there twice', $file->warnings[0]);
        self::assertStringContainsString('the header changes here', $file->warnings[1]);
        self::assertSame('PEG 7', $file->marker);
    }

    /** Galileo time runs with GPS time; BeiDou time is 14 seconds behind (interface documents). */
    public function testTimeSystems(): void
    {
        $of = static fn (string $system): string => (string) ObservationReader::read(implode("\n", [
            ...str_replace('     GPS  ', "     $system  ", self::THREE), '> 2031 05 04 09 00  0.0000000  0  1', 'G05  20000000.123',
        ]), 'a.rnx')->times[0];
        self::assertSame('gps:2031-05-04T09:00:00.000', $of('GAL'));
        self::assertSame('gps:2031-05-04T09:00:14.000', $of('BDT'));
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/a.rnx line 7: its time system is GLO, which follows UTC/');
        $of('GLO');
    }

    /** SYS / SCALE FACTOR: what is written is so many times what was observed, of the types that are named, or of all. */
    public function testScaleFactors(): void
    {
        $read = static fn (string $line): array => ObservationReader::read(implode("\n", [
            ...\array_slice(self::THREE, 0, -1), str_pad($line, 60).'SYS / SCALE FACTOR', self::THREE[7],
            '> 2031 05 04 09 00  0.0000000  0  1', 'G05  20000000.000   105000000.000',
        ]), 'a.rnx')->value;
        self::assertSame([20000000.0, 1050000.0], \array_slice($read('G  100   1 L1C'), 0, 2));
        self::assertSame([200000.0, 1050000.0], \array_slice($read('G  100'), 0, 2));
    }

    /** @return iterable<string, array{list<string>, string}> */
    public static function bad(): iterable
    {
        $without = static fn (string $label): array => array_values(array_filter(
            self::THREE, static fn (string $l): bool => !str_contains($l, $label),
        ));
        yield 'no RINEX' => [['point,e,n'], '/a line 1: is not RINEX/'];
        yield 'version' => [
            ['     4.00           OBSERVATION DATA    M                   RINEX VERSION / TYPE'],
            '/is RINEX 4.00; versions 2.11 and 3.02/',
        ];
        yield 'type' => [
            ['     3.04           N: GNSS NAV DATA    G                   RINEX VERSION / TYPE'],
            '/of type N, not of observations/',
        ];
        yield 'header' => [\array_slice(self::THREE, 0, 5), '/ends within its header/'];
        yield 'types' => [array_values(array_filter($without('OBS TYPES'))), '/names no observation types/'];
        yield 'no epoch' => [self::THREE, '/holds no epoch/'];
        yield 'record' => [[...self::THREE, 'G05  20000000.123'], '/line 9: an epoch record begins with >/'];
        yield 'number' => [
            [...self::THREE, '> 2031 05 04 09 00  0.0000000  0  1', 'G05  2000x000.123'],
            '/line 10: "2000x000.123" is not a number/',
        ];
        yield 'time' => [
            [...self::THREE, '> 2031 15 04 09 00  0.0000000  0  1', 'G05  20000000.123'],
            '/line 9: the time of the epoch cannot be read/',
        ];
        yield 'position' => [
            str_replace('3900000.1000', 'somewhere   ', self::THREE),
            '/line 3: the approximate position is not three numbers/',
        ];
    }

    /** @param list<string> $lines */
    #[DataProvider('bad')]
    public function testWhatCannotBeReadIsNamedByItsLine(array $lines, string $why): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches($why);
        ObservationReader::read(implode("\n", $lines), 'a');
    }

    public function testNavigationOfVersionTwoAndWhatIsNotProcessed(): void
    {
        $cell = static fn (float $x): string => strtr(\sprintf('%19.12E', $x), 'E', 'D');
        $row = static fn (float ...$v): string => implode('', array_map($cell, $v));
        $file = NavigationReader::read(implode("\n", [
            '     2.11           N: GPS NAV DATA                         RINEX VERSION / TYPE',
            '    0.1000D-07  0.2000D-07 -0.5000D-07  0.1000D-06          ION ALPHA',
            '    0.9000D+05  0.1000D+06 -0.6000D+05 -0.3000D+06          ION BETA',
            '                                                            END OF HEADER',
            ' 5 31  5  4  8  0  0.0'.$row(1e-4, 1e-12, 0.0), '   '.$row(1, 2, 3e-9, 0.5), '   '.$row(4e-6, 0.01, 5e-6, 5153.7),
            '   '.$row(28800, 1e-7, 1.5, 2e-7), '   '.$row(0.96, 250, 0.7, -8e-9),
            '   '.$row(1e-10, 1, 2678 - 2048, 0), '   '.$row(2, 0, -1e-8, 1),
            '   '.$row(27000, 4),
        ]), 'a.31n');
        self::assertSame(1e-8, $file->klobuchar[0] ?? null);
        [$e] = $file->ephemerides;
        self::assertSame(['G05', 5153.7, 0.01, true], [$e->satellite, $e->sqrtA, $e->eccentricity, $e->healthy]);
        self::assertSame(2678, $e->orbitTime->week, 'Weeks counted modulo 1024 are brought near the time of the clock.');
        // A circle of 26 560 km: the radius lies within the eccentricity of it, and Kepler's third law gives half a day.
        [$x, $y, $z] = $e->at($e->orbitTime);
        self::assertEqualsWithDelta(5153.7 ** 2, sqrt($x * $x + $y * $y + $z * $z), 0.011 * 5153.7 ** 2);
    }

    public function testANumberThatIsNoneIsNotTakenForNought(): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/b.31n line 3: "1.0x" is not a number/');
        NavigationReader::read(implode("\n", [
            '     2.11           N: GPS NAV DATA                         RINEX VERSION / TYPE',
            '                                                            END OF HEADER', ' 5 31  5  4  8  0  0.0               1.0x',
        ]), 'b.31n');
    }
}
