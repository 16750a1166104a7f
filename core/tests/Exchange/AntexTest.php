<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Demo\Gnss\Receiver;
use Demo\Gnss\Sky;
use Mensura\Exchange\Antex\AntexReader;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Options;
use Mensura\Gnss\Orbits;
use PHPUnit\Framework\TestCase;

/** Antenna calibrations: layout after ANTEX 1.4, and what they do to a baseline. */
final class AntexTest extends TestCase
{
    private const BASE = [3901600.0, 300100.0, 5020020.0];

    public function testACalibrationIsReadByItsColumns(): void
    {
        $models = AntexReader::read(self::file(1.2, -0.4, 85.5, [0.0, -0.5, -2.0, -4.5]), 'a.atx');
        self::assertSame(['INVENTED ANTENNA NONE'], array_keys($models), 'Satellites are passed over.');
        $m = $models['INVENTED ANTENNA NONE'];
        self::assertSame([0.0012, -0.0004, 0.0855], array_map(static fn (float $v): float => round($v, 7), $m->offset['G01']));
        // Straight up the phase is short by the height of the centre; at the horizon by its north part, with the variation.
        self::assertEqualsWithDelta(-0.0855, (float) $m->excess('G01', 0.0, \M_PI / 2.0), 1e-12);
        self::assertEqualsWithDelta(-0.0012 - 0.0045, (float) $m->excess('G01', 0.0, 0.0), 1e-12);
        self::assertEqualsWithDelta(0.0004 * 0.5 - 0.0855 * sqrt(0.75) - 0.0005, (float) $m->excess('G01', \M_PI / 2.0, \M_PI / 3.0), 1e-9);
        self::assertNull($m->excess('G07', 0.0, 1.0));
    }

    public function testAnAntennaWithItsCentreHighIsBroughtDown(): void
    {
        $sky = new Sky(61, systems: 'GE');
        $mark = Horizon::of(self::BASE)->shifted(self::BASE, 300.0, 200.0, 5.0);
        $centre = Horizon::of($mark)->shifted($mark, 0.0, 0.0, 0.085);
        $b = $sky->observations(new Receiver('B', self::BASE, 81, 15.0, 0.0, Receiver::EVERYTHING));
        $r = $sky->observations(new Receiver('R', $centre, 81, 15.0, 0.0, Receiver::EVERYTHING));
        $orbits = new Orbits(NavigationReader::read($sky->navigation(), 'n')->ephemerides);
        $model = AntexReader::read(self::file(0.0, 0.0, 85.0, [0.0, 0.0, 0.0, 0.0]), 'a.atx')['INVENTED ANTENNA NONE'];
        $session = SessionOf::of(ObservationReader::read($b, 'b'), ObservationReader::read($r, 'r'), 'b', 'r');
        $processor = new BaselineProcessor($session, $orbits, null, new Options(deg2rad(10.0), roverAntenna: $model));
        $solution = $processor->run(BaselineProcessor::STATIC, self::BASE, true)[0];
        self::assertSame('fixed', $solution->solution);
        self::assertLessThan(0.012, Horizon::distance($solution->rover, $mark));
        self::assertStringContainsString('only one of the two antennas', implode(' ', $processor->warnings));
    }

    public function testWhatIsNoCalibrationSaysSo(): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/a.atx line 1: is not ANTEX/');
        AntexReader::read('hello', 'a.atx');
    }

    /** @param list<float> $variation millimetres at 0, 30, 60 and 90 degrees of zenith angle */
    private static function file(float $north, float $east, float $up, array $variation): string
    {
        $line = static fn (string $text, string $label): string => str_pad($text, 60).$label."\n";
        $antenna = static fn (string $type, string $serial, string $code) => $line('', 'START OF ANTENNA')
            .$line(\sprintf('%-20s%-20s%-10s', $type, $serial, $code), 'TYPE / SERIAL NO').$line('     0.0', 'DAZI')
            .$line(\sprintf('  %6.1F%6.1F%6.1F', 0.0, 90.0, 30.0), 'ZEN1 / ZEN2 / DZEN').$line('     2', '# OF FREQUENCIES');
        $frequency = static fn (string $name): string => $line('   '.$name, 'START OF FREQUENCY')
            .$line(\sprintf('%10.2F%10.2F%10.2F', $north, $east, $up), 'NORTH / EAST / UP')
            .'   NOAZI'.implode('', array_map(static fn (float $v): string => \sprintf('%8.2F', $v), $variation))."\n"
            .$line('   '.$name, 'END OF FREQUENCY');

        return $line('     1.4            M', 'ANTEX VERSION / SYST').$line('A', 'PCV TYPE / REFANT').$line('', 'END OF HEADER')
            .$antenna('BLOCK X', 'G01', 'G063').$frequency('G01').$line('', 'END OF ANTENNA')
            .$antenna('INVENTED ANTENNANONE', '', '').$frequency('G01').$frequency('G02').$line('', 'END OF ANTENNA');
    }
}
