<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Exchange\NetworkJson\CrsFrames;
use Mensura\Exchange\NetworkJson\NetworkJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Network\AdjustmentResult;
use Mensura\Network\ApproximateCoordinates;
use Mensura\Network\Loci;
use Mensura\Network\NetworkDefinition;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Registry\Registry;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Stations that only directions, angles and azimuths tie to known ones get a place, and the right one. */
final class LociTest extends TestCase
{
    private const PLACES = [
        'A' => [1000.0, 2000.0], 'B' => [1400.0, 2100.0], 'C' => [1300.0, 1600.0], 'D' => [900.0, 1650.0],
        'P' => [1130.0, 1870.0], 'Q' => [1180.0, 1700.0], 'R' => [1010.0, 1700.0],
    ];

    /**
     * @param list<array<string, mixed>> $observations
     * @param list<string>               $unknown
     */
    #[DataProvider('ties')]
    public function testAStationIsPlaced(array $observations, array $unknown = ['P']): void
    {
        foreach (self::adjust($observations, $unknown)->stations as $station) {
            self::assertEqualsWithDelta(self::PLACES[$station['id']], [$station['e'], $station['n']], 1e-6, $station['id']);
        }
    }

    /** @return iterable<string, array{0: list<array<string, mixed>>, 1?: list<string>}> */
    public static function ties(): iterable
    {
        $d = self::direction(...);
        $a = self::angle(...);
        $z = self::azimuth(...);
        yield 'resection by directions' => [[$d('P', 'A'), $d('P', 'B'), $d('P', 'C')]];
        yield 'resection by angles in a chain' => [[$a('P', 'A', 'B'), $a('P', 'B', 'C')]];
        yield 'resection by angles from one mark' => [[$a('P', 'A', 'B'), $a('P', 'A', 'C')]];
        yield 'resection by three angles apart' => [[$a('P', 'A', 'B'), $a('P', 'C', 'D'), $a('P', 'B', 'D')]];
        yield 'intersection by directions' => [[$d('A', 'B'), $d('A', 'P'), $d('C', 'D'), $d('C', 'P')]];
        yield 'intersection by angles' => [[$a('A', 'B', 'P'), $a('C', 'P', 'B')]];
        yield 'intersection by azimuths' => [[$z('A', 'P'), $z('C', 'P')]];
        yield 'azimuths taken at the station' => [[$z('P', 'A'), $z('P', 'C')]];
        yield 'an azimuth that orients a round' => [[$z('P', 'A'), $d('P', 'A'), $d('P', 'B')]];
        yield 'an azimuth and an angle' => [[$z('P', 'A'), $a('P', 'A', 'B')]];
        yield 'a ray from a mark and an angle at the station' => [[$d('A', 'B'), $d('A', 'P'), $a('P', 'B', 'C')]];
        yield 'two stations that see each other and two marks' => [
            [$d('P', 'A'), $d('P', 'B'), $d('P', 'Q'), $d('Q', 'A'), $d('Q', 'B'), $d('Q', 'P')],
            ['P', 'Q'],
        ];
        yield 'a station from a resected one' => [[$a('P', 'A', 'B'), $a('P', 'B', 'C'), $a('P', 'A', 'Q'), $a('A', 'B', 'Q')], ['P', 'Q']];
    }

    /** In a projected system azimuths count from the meridian; the approximation takes the convergence off. */
    public function testAzimuthsInAProjectedSystem(): void
    {
        $stations = [
            ['id' => 'A', 'e' => 693000.0, 'n' => 6028000.0, 'h' => 50.0, 'fixed' => ['e', 'n', 'h']],
            ['id' => 'C', 'e' => 693300.0, 'n' => 6027600.0, 'h' => 50.0, 'fixed' => ['e', 'n', 'h']],
            ['id' => 'P', 'h' => 50.0],
        ];
        $observations = [
            ['type' => 'azimuth', 'from' => 'P', 'to' => 'A', 'value' => 317.4, 'sd' => 0.001],
            ['type' => 'azimuth', 'from' => 'P', 'to' => 'C', 'value' => 150.2, 'sd' => 0.001],
        ];
        $result = (new Adjustment(self::read([
            'frame' => ['type' => 'crs', 'crs' => 'EPSG:25830'], 'stations' => $stations,
            'observations' => $observations,
        ])))->run();
        self::assertTrue($result->converged);
        foreach ($result->observations as $row) {
            self::assertEqualsWithDelta(0.0, $row['residual'], 1e-9);
        }
    }

    /** Two chords alone leave two places where their circles meet; neither is chosen in silence. */
    public function testTwoPlacesThatFitAreRefused(): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/^stations: P: no approximate plan position can be found/');
        self::adjust([self::angle('P', 'A', 'B'), self::angle('P', 'C', 'D')], ['P']);
    }

    /** In a group computed in a frame of its own an azimuth says nothing until the group is turned onto what is known. */
    public function testAnAzimuthDoesNotTurnAGroupOfItsOwn(): void
    {
        $observations = [
            self::direction('P', 'A'), self::direction('P', 'Q'), self::direction('Q', 'P'), self::direction('Q', 'B'),
            self::direction('P', 'B'), self::direction('Q', 'A'), self::azimuth('Q', 'R'),
            self::direction('P', 'R'),
        ];
        $network = self::network($observations, ['P', 'Q', 'R']);
        [$e, $n] = ApproximateCoordinates::of($network);
        foreach ($network->stations as $s => $station) {
            self::assertEqualsWithDelta(self::PLACES[$station->id], [$e[$s], $n[$s]], 1e-6, $station->id);
        }
    }

    /** On the circle through the three marks every place sees the same angles (the danger circle, common practice). */
    public function testOnTheDangerCircleThereIsNoPlace(): void
    {
        $loci = new Loci();
        $at = static fn (float $t): array => [100.0 * sin($t), 100.0 * cos($t)];
        [$p, $a, $b, $c] = [$at(0.0), $at(1.5), $at(3.0), $at(4.0)];
        $bearing = static fn (array $to): float => atan2($to[0] - $p[0], $to[1] - $p[1]);
        $loci->angle($a[0], $a[1], $b[0], $b[1], $bearing($b) - $bearing($a));
        $loci->angle($b[0], $b[1], $c[0], $c[1], $bearing($c) - $bearing($b));
        self::assertNull($loci->meet());
    }

    public function testDistancesToThreeMarks(): void
    {
        $loci = new Loci();
        foreach (['A', 'B', 'C'] as $mark) {
            $loci->distance(
                self::PLACES[$mark][0],
                self::PLACES[$mark][1],
                hypot(self::PLACES['P'][0] - self::PLACES[$mark][0], self::PLACES['P'][1] - self::PLACES[$mark][1]) + 0.02,
            );
        }
        self::assertEqualsWithDelta(self::PLACES['P'], $loci->meet(), 0.1);
        $two = new Loci();
        $two->distance(0.0, 0.0, 5.0);
        $two->distance(6.0, 0.0, 5.0);
        self::assertNull($two->meet(), 'on either side of the line');
    }

    private static function bearing(string $from, string $to): float
    {
        return rad2deg(atan2(self::PLACES[$to][0] - self::PLACES[$from][0], self::PLACES[$to][1] - self::PLACES[$from][1]));
    }

    /** @return array<string, mixed> */
    private static function direction(string $from, string $to): array
    {
        return [
            'type' => 'direction', 'set' => '1', 'from' => $from, 'to' => $to,
            'value' => fmod(self::bearing($from, $to) + 687.0, 360.0), 'sd' => 0.0003,
        ];
    }

    /** @return array<string, mixed> */
    private static function angle(string $at, string $back, string $to): array
    {
        return [
            'type' => 'angle', 'at' => $at, 'back' => $back, 'to' => $to,
            'value' => fmod(self::bearing($at, $to) - self::bearing($at, $back) + 720.0, 360.0), 'sd' => 0.0003,
        ];
    }

    /** @return array<string, mixed> */
    private static function azimuth(string $from, string $to): array
    {
        return [
            'type' => 'azimuth', 'from' => $from, 'to' => $to,
            'value' => fmod(self::bearing($from, $to) + 360.0, 360.0), 'sd' => 0.0003,
        ];
    }

    /**
     * @param list<array<string, mixed>> $observations
     * @param list<string>               $unknown
     */
    private static function network(array $observations, array $unknown): NetworkDefinition
    {
        $stations = array_map(static fn (string $id): array => ['id' => $id], $unknown);
        foreach (['A', 'B', 'C', 'D'] as $id) {
            $stations[] = ['id' => $id, 'e' => self::PLACES[$id][0], 'n' => self::PLACES[$id][1], 'h' => 50.0, 'fixed' => ['e', 'n', 'h']];
        }

        return self::read(['frame' => ['type' => 'plane'], 'stations' => $stations, 'observations' => $observations]);
    }

    /**
     * @param list<array<string, mixed>> $observations
     * @param list<string>               $unknown
     */
    private static function adjust(array $observations, array $unknown): AdjustmentResult
    {
        return (new Adjustment(self::network($observations, $unknown)))->run();
    }

    /** @param array<string, mixed> $network */
    private static function read(array $network): NetworkDefinition
    {
        $json = json_encode(['format' => 'mensura-network/1', 'settings' => new \stdClass()] + $network, \JSON_THROW_ON_ERROR);

        return (new NetworkJsonReader(new CrsFrames(Registry::open(...), GridFiles::installed())))->read($json);
    }
}
