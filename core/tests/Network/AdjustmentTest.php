<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Exchange\NetworkJson\NetworkJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Network\AdjustmentResult;
use Mensura\Network\GridFrame;
use Mensura\Tests\Fixture;
use Mensura\Tests\Reference\Systems;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Against dense least squares in numpy (fixtures/network/make.py), identities of adjustment theory, and planted blunders. */
final class AdjustmentTest extends TestCase
{
    /** @return iterable<string, array{string, bool, float}> name, free, tolerance relative to the unit of each figure */
    public static function nets(): iterable
    {
        yield 'plane, every kind of observation' => ['plane-mixed', false, 1e-8];
        yield 'plane, free' => ['plane-mixed-free', true, 1e-8];
        yield 'crs' => ['crs-mixed', false, 2e-5];
        yield 'vectors alone, in another zone and on another ellipsoid' => ['crs-vectors', false, 2e-5];
        yield 'levelling' => ['levelling', false, 1e-8];
        yield 'distances only, free' => ['trilateration-free', true, 1e-8];
        yield 'directions only, free with scale' => ['directions-free', true, 1e-6];
    }

    #[DataProvider('nets')]
    public function testAgreesWithNumpy(string $name, bool $free, float $tolerance): void
    {
        $expected = Fixture::json("network/$name.expected.json");
        $result = $this->adjust((string) file_get_contents(Fixture::path("network/$name.input.json")), $free);
        self::assertTrue($result->converged);
        self::assertSame($expected['parameterCount'], $result->parameterCount);
        self::assertSame($expected['redundancy'], $result->redundancy);
        self::assertEqualsWithDelta($expected['varianceFactor'], $result->varianceFactor, $tolerance);
        self::assertEqualsWithDelta($expected['lower'], $result->globalTest['lower'] ?? 0.0, 1e-9);
        self::assertEqualsWithDelta($expected['upper'], $result->globalTest['upper'] ?? 0.0, 1e-9);
        foreach ($expected['stations'] as $s => $station) {
            foreach (['e', 'n', 'h'] as $c) {
                self::assertEqualsWithDelta($station[$c], $result->stations[$s][$c], 1e-6, "$name {$station['id']} $c");
            }
            foreach ([0, 1, 2] as $i) {
                foreach ([0, 1, 2] as $j) {
                    $scale = sqrt($station['covariance'][$i][$i] * $station['covariance'][$j][$j]) + 1e-12;
                    self::assertEqualsWithDelta(
                        $station['covariance'][$i][$j], $result->stations[$s]['covariance'][$i][$j],
                        max($tolerance, 1e-7) * $scale, "$name {$station['id']} covariance $i $j",
                    );
                }
            }
        }
        foreach ($expected['rows'] as $r => $row) {
            $actual = $result->observations[$r];
            self::assertEqualsWithDelta($row['standardized'], $actual['standardized'], $tolerance, "$name row $r");
            self::assertEqualsWithDelta($row['residual'], $actual['residual'], 1e-7, "$name row $r");
            self::assertEqualsWithDelta($row['redundancyNumber'], $actual['redundancyNumber'], max($tolerance, 1e-7), "$name row $r");
            if (isset($row['minimalDetectable'])) {
                self::assertEqualsWithDelta(
                    $row['minimalDetectable'], $actual['minimalDetectable'],
                    max($tolerance, 1e-7) * $row['minimalDetectable'], "$name row $r",
                );
            }
        }
    }

    #[DataProvider('nets')]
    public function testRedundancyNumbersSumToTheDegreesOfFreedom(string $name, bool $free): void
    {
        $result = $this->adjust((string) file_get_contents(Fixture::path("network/$name.input.json")), $free);
        self::assertEqualsWithDelta($result->redundancy, array_sum(array_column($result->groups, 'redundancy')), 1e-6);
        self::assertEqualsWithDelta(
            (float) $result->varianceFactor * $result->redundancy,
            array_sum(array_column($result->groups, 'sumSquares')), 1e-6,
        );
    }

    /** Residuals do not depend on the datum (Baarda 1973): free and minimally constrained agree. */
    public function testFreeAndMinimallyConstrainedResidualsAgree(): void
    {
        $document = Fixture::json('network/trilateration-free.input.json');
        $free = $this->adjust(json_encode($document, \JSON_THROW_ON_ERROR), true);
        $document['stations'][0]['fixed'] = ['e', 'n'];
        $document['stations'][2]['fixed'] = ['e'];
        $minimal = $this->adjust(json_encode($document, \JSON_THROW_ON_ERROR));
        self::assertSame($free->redundancy, $minimal->redundancy);
        foreach ($free->observations as $i => $row) {
            self::assertEqualsWithDelta($row['residual'], $minimal->observations[$i]['residual'], 1e-8);
            self::assertEqualsWithDelta($row['standardized'], $minimal->observations[$i]['standardized'], 1e-5);
        }
        // Inner constraints: the given coordinates do not move, turn or stretch on the whole.
        $e = $n = 0.0;
        foreach ($document['stations'] as $i => $station) {
            $e += $free->stations[$i]['e'] - $station['e'];
            $n += $free->stations[$i]['n'] - $station['n'];
        }
        self::assertEqualsWithDelta(0.0, $e, 1e-9);
        self::assertEqualsWithDelta(0.0, $n, 1e-9);
    }

    public function testScreeningFindsPlantedBlundersAndNothingElse(): void
    {
        $document = Fixture::json('network/plane-mixed.input.json');
        $document['observations'][8]['value'] += 0.05;
        $document['observations'][21]['value'] += 0.02;
        $document['observations'][57]['dz'] += 0.06;
        $result = $this->adjust(json_encode($document, \JSON_THROW_ON_ERROR), false, 3.29);
        $aside = array_map(static fn (array $a): string => $a['index'].($a['component'] ?? ''), $result->aside);
        sort($aside, \SORT_STRING);
        self::assertSame(['21', '57dz', '8'], $aside);
        self::assertSame([1, 2, 3], array_column($result->aside, 'pass'));
        self::assertTrue($result->globalTest['passed'] ?? false);
        self::assertSame('aside', $result->observations[8]['use']);
        self::assertEqualsWithDelta(-0.05, $result->observations[8]['residual'], 0.008);
    }

    public function testPreanalysisGivesThePrecisionWithoutValues(): void
    {
        $document = Fixture::json('network/plane-mixed.input.json');
        $full = $this->adjust(json_encode($document, \JSON_THROW_ON_ERROR));
        foreach ($document['observations'] as $i => $observation) {
            unset(
                $document['observations'][$i]['value'], $document['observations'][$i]['dx'],
                $document['observations'][$i]['dy'], $document['observations'][$i]['dz']
            );
        }
        $plan = (new Adjustment(
            (new NetworkJsonReader(Systems::frames()))->read(json_encode($document, \JSON_THROW_ON_ERROR), true),
            false,
            true,
        ))->run();
        self::assertNull($plan->globalTest);
        foreach ($full->stations as $i => $station) {
            self::assertEqualsWithDelta($station['sd']['e'], $plan->stations[$i]['sd']['e'], 2e-3 * $station['sd']['e'] + 1e-9);
        }
        self::assertNull($plan->observations[0]['residual']);
        self::assertGreaterThan(0.0, $plan->observations[0]['minimalDetectable']);
    }

    /** Law of propagation: centring of ci and ct turns a direction over d metres by sqrt(ci^2 + ct^2) / d. */
    public function testCentringEntersOnlyWhereNoSdIsGiven(): void
    {
        $document = ['format' => 'mensura-network/1', 'frame' => ['type' => 'plane'],
            'settings' => [
                'sigma' => ['direction' => 0.0003, 'distance' => [0.002, 2.0]],
                'centring' => ['instrument' => 0.003, 'target' => 0.004, 'height' => 0.002],
            ],
            'stations' => [
                ['id' => 'A', 'e' => 0, 'n' => 0, 'h' => 0, 'fixed' => ['e', 'n', 'h']],
                ['id' => 'B', 'e' => 30, 'n' => 40, 'h' => 0, 'fixed' => ['e', 'n', 'h']],
                ['id' => 'C', 'e' => 0, 'n' => 60, 'h' => 0],
            ],
            'observations' => [
                ['type' => 'direction', 'from' => 'A', 'to' => 'B', 'set' => '1', 'value' => rad2deg(atan2(30, 40))],
                ['type' => 'direction', 'from' => 'A', 'to' => 'C', 'set' => '1', 'value' => 0.0, 'sd' => 0.0003],
                ['type' => 'slope-distance', 'from' => 'A', 'to' => 'B', 'value' => 50.0],
                ['type' => 'horizontal-distance', 'from' => 'A', 'to' => 'C', 'value' => 60.0],
                ['type' => 'zenith', 'from' => 'A', 'to' => 'C', 'value' => 90.0],
            ]];
        $rows = $this->adjust(json_encode($document, \JSON_THROW_ON_ERROR))->observations;
        self::assertEqualsWithDelta(hypot(0.0003, rad2deg(0.005 / 50.0)), $rows[0]['sd'], 1e-12);
        self::assertEqualsWithDelta(0.0003, $rows[1]['sd'], 1e-12);
        self::assertEqualsWithDelta(sqrt(0.002 ** 2 + 1e-4 ** 2 + 0.005 ** 2), $rows[2]['sd'], 1e-12);
        self::assertEqualsWithDelta(hypot(0.0003, rad2deg(sqrt(2) * 0.002 / 60.0)), $rows[4]['sd'], 1e-12);
    }

    /** Common practice: one arc second at 100 m is 0.485 mm. */
    public function testASecondAtAHundredMetres(): void
    {
        $sd = 1.0 / 3600.0;
        $document = ['format' => 'mensura-network/1', 'frame' => ['type' => 'plane'], 'settings' => [],
            'stations' => [
                ['id' => 'A', 'e' => 0, 'n' => 0, 'h' => 0, 'fixed' => ['e', 'n', 'h']],
                ['id' => 'P', 'e' => 0, 'n' => 100, 'h' => 0],
            ],
            'observations' => [
                ['type' => 'azimuth', 'from' => 'A', 'to' => 'P', 'value' => 0.0, 'sd' => $sd],
                ['type' => 'horizontal-distance', 'from' => 'A', 'to' => 'P', 'value' => 100.0, 'sd' => 0.001],
            ]];
        $result = $this->adjust(json_encode($document, \JSON_THROW_ON_ERROR));
        self::assertEqualsWithDelta(0.000485, $result->stations[1]['sd']['e'], 5e-7);
        self::assertSame(0, $result->redundancy);
        self::assertNull($result->globalTest);
        self::assertStringContainsString('no redundancy', $result->warnings[0]);
    }

    public function testUnknownStationsAreFoundByResectionIntersectionAndPolar(): void
    {
        $truth = [
            'A' => [0.0, 0.0, 10.0], 'B' => [200.0, 10.0, 12.0], 'C' => [120.0, 220.0, 15.0],
            'R' => [90.0, 60.0, 11.0], 'Q' => [150.0, 120.0, 17.0], 'S' => [30.0, 150.0, 9.0],
        ];
        $observations = [];
        $ray = static function (string $f, string $t, float $turn, bool $distance) use ($truth, &$observations): void {
            [$de, $dn, $dh] = [$truth[$t][0] - $truth[$f][0], $truth[$t][1] - $truth[$f][1], $truth[$t][2] - $truth[$f][2]];
            $observations[] = [
                'type' => 'direction', 'set' => '1', 'from' => $f, 'to' => $t,
                'value' => fmod(rad2deg(atan2($de, $dn)) - $turn + 720.0, 360.0), 'sd' => 0.0005,
            ];
            $observations[] = [
                'type' => 'zenith', 'from' => $f, 'to' => $t, 'value' => rad2deg(atan2(hypot($de, $dn), $dh)),
                'sd' => 0.0005,
            ];
            if ($distance) {
                $observations[] = [
                    'type' => 'slope-distance', 'from' => $f, 'to' => $t,
                    'value' => sqrt($de ** 2 + $dn ** 2 + $dh ** 2), 'sd' => 0.002,
                ];
            }
        };
        foreach (['A', 'B', 'C'] as $t) {
            $ray('R', $t, 37.0, false);
        }
        $ray('R', 'Q', 37.0, false);
        $ray('A', 'B', 211.0, false);
        $ray('A', 'Q', 211.0, false);
        $ray('A', 'S', 211.0, true);
        $stations = [];
        foreach ($truth as $id => [$e, $n, $h]) {
            $stations[] = \in_array($id, ['A', 'B', 'C'], true)
                ? ['id' => $id, 'e' => $e, 'n' => $n, 'h' => $h, 'fixed' => ['e', 'n', 'h']]
                : ['id' => $id];
        }
        $result = $this->adjust(json_encode([
            'format' => 'mensura-network/1', 'frame' => ['type' => 'plane'], 'settings' => [],
            'stations' => $stations, 'observations' => $observations,
        ], \JSON_THROW_ON_ERROR));
        self::assertTrue($result->converged);
        foreach ($result->stations as $station) {
            self::assertEqualsWithDelta($truth[$station['id']][0], $station['e'], 1e-6);
            self::assertEqualsWithDelta($truth[$station['id']][1], $station['n'], 1e-6);
            self::assertEqualsWithDelta($truth[$station['id']][2], $station['h'], 1e-6);
        }
    }

    /** A traverse between two known points that do not see each other, with no azimuth anywhere. */
    public function testATraverseWithoutOrientationFindsItsPlace(): void
    {
        $truth = ['A' => [0.0, 0.0], 'T1' => [80.0, 30.0], 'T2' => [150.0, -20.0], 'T3' => [230.0, 40.0], 'B' => [300.0, 10.0]];
        $names = array_keys($truth);
        $observations = $stations = [];
        for ($i = 1; $i < 4; ++$i) {
            foreach ([$i - 1, $i + 1] as $j) {
                [$de, $dn] = [$truth[$names[$j]][0] - $truth[$names[$i]][0], $truth[$names[$j]][1] - $truth[$names[$i]][1]];
                $observations[] = [
                    'type' => 'direction', 'set' => '1', 'from' => $names[$i], 'to' => $names[$j],
                    'value' => fmod(rad2deg(atan2($de, $dn)) + 400.0 + 31.0 * $i, 360.0), 'sd' => 0.0005,
                ];
                $observations[] = [
                    'type' => 'horizontal-distance', 'from' => $names[$i], 'to' => $names[$j],
                    'value' => hypot($de, $dn), 'sd' => 0.002,
                ];
            }
        }
        foreach ($truth as $id => [$e, $n]) {
            $stations[] = \in_array($id, ['A', 'B'], true) ? ['id' => $id, 'e' => $e, 'n' => $n, 'fixed' => ['e', 'n']] : ['id' => $id];
        }
        $result = $this->adjust(json_encode([
            'format' => 'mensura-network/1', 'frame' => ['type' => 'plane'], 'settings' => [],
            'stations' => $stations, 'observations' => $observations,
        ], \JSON_THROW_ON_ERROR));
        foreach ($result->stations as $station) {
            self::assertEqualsWithDelta($truth[$station['id']], [$station['e'], $station['n']], 1e-6);
        }
    }

    /**
     * A held triangle, and a group of stations with all distances between them that hangs on nothing, or on one distance.
     *
     * @return array<string, mixed>
     */
    private static function withIsland(int $count, bool $leg = false): array
    {
        $stations = [
            ['id' => 'A', 'e' => 0.0, 'n' => 0.0, 'h' => 0.0, 'fixed' => ['e', 'n', 'h']],
            ['id' => 'B', 'e' => 100.0, 'n' => 0.0, 'h' => 0.0, 'fixed' => ['e', 'n', 'h']],
            ['id' => 'C', 'e' => 50.0, 'n' => 80.0, 'h' => 0.0],
        ];
        $pairs = [[0, 2], [1, 2], ...($leg ? [[0, 3]] : [])];
        for ($i = 1; $i <= $count; ++$i) {
            $stations[] = ['id' => "U$i", 'e' => 300.0 + 40.0 * ($i % 3), 'n' => 200.0 + 35.0 * intdiv($i, 3), 'h' => 0.0];
            for ($j = 1; $j < $i; ++$j) {
                $pairs[] = [2 + $j, 2 + $i];
            }
        }
        $observations = array_map(static fn (array $p): array => [
            'type' => 'horizontal-distance', 'from' => $stations[$p[0]]['id'], 'to' => $stations[$p[1]]['id'],
            'sd' => 0.002,
            'value' => hypot($stations[$p[1]]['e'] - $stations[$p[0]]['e'], $stations[$p[1]]['n'] - $stations[$p[0]]['n']),
        ], $pairs);

        return [
            'format' => 'mensura-network/1', 'frame' => ['type' => 'plane'], 'settings' => [],
            'stations' => $stations, 'observations' => $observations,
        ];
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function badInput(): iterable
    {
        $base = Fixture::json('network/plane-mixed.input.json');
        $change = static function (callable $f) use ($base): array {
            $copy = $base;
            $f($copy);

            return $copy;
        };
        yield 'station twice' => [
            $change(static function (array &$d): void { $d['stations'][3]['id'] = 'P2'; }),
            '/stations\[3\]\.id: station "P2" is there twice/',
        ];
        yield 'unknown station' => [
            $change(static function (array &$d): void { $d['observations'][4]['to'] = 'KT99'; }),
            '/observations\[4\].*KT99/',
        ];
        yield 'undetermined station' => [$change(static function (array &$d): void {
            $d['stations'][] = ['id' => 'X', 'e' => 1.0, 'n' => 2.0, 'h' => 3.0];
            $d['observations'][] = ['type' => 'direction', 'set' => 'P1/1', 'from' => 'P1', 'to' => 'X', 'value' => 1.0, 'sd' => 0.001];
        }), '/^stations: X: plan position not determined/'];
        yield 'datum defect' => [$change(static function (array &$d): void {
            foreach ($d['stations'] as &$s) {
                unset($s['fixed'], $s['sd']);
            }
        }), '/^stations: P1.*: datum defect: nothing fixes their position east, position north, height/'];
        yield 'nothing observed, though weighted' => [$change(static function (array &$d): void {
            foreach ($d['observations'] as &$o) {
                $o['use'] = 'aside';
            }
        }), '/^observations: nothing is observed: every observation is set aside/'];
        yield 'nothing left to determine' => [['frame' => ['type' => 'plane'], 'settings' => [], 'format' => 'mensura-network/1',
            'stations' => [
                ['id' => 'A', 'e' => 0, 'n' => 0, 'h' => 0, 'fixed' => ['e', 'n', 'h']],
                ['id' => 'B', 'e' => 10, 'n' => 0, 'h' => 0, 'fixed' => ['e', 'n', 'h']],
            ],
            'observations' => [[
                'type' => 'slope-distance', 'from' => 'A', 'to' => 'B', 'value' => 10.001, 'sd' => 0.002,
            ]]], '/^observations: nothing is left to determine/'];
        yield 'an undetermined part of eight' => [
            self::withIsland(8),
            '/^stations: U1, U2, U3, U4, U5, U6, U7, U8: datum defect: nothing fixes their position east, position north, rotation/',
        ];
        yield 'an undetermined part of nine' => [self::withIsland(9), '/^stations: U1, U2, U3, U4, U5, U6, U7, U8 and 1 more: /'];
        yield 'a part on one leg' => [
            self::withIsland(3, true),
            '/^stations: U1, U2, U3: plan position not determined by the used observations; hold or weight a station among them/',
        ];
        yield 'absurd refraction' => [
            $change(static function (array &$d): void { $d['settings']['refraction'] = -1e300; }),
            '/^settings\.refraction: must lie between -20 and 20/',
        ];
        yield 'negative centring' => [
            $change(static function (array &$d): void { $d['settings']['centring'] = ['target' => -0.001]; }),
            '/^settings\.centring\.target: must not be negative/',
        ];
        yield 'an unknown kind' => [
            $change(static function (array &$d): void { $d['observations'][3]['type'] = 'gyro'; }),
            '/^observations\[3\]\.type: "gyro" is no kind of observation; it must be one of direction, angle/',
        ];
        yield 'a kind that is no text' => [
            $change(static function (array &$d): void { $d['observations'][3]['type'] = [7]; }),
            '/^observations\[3\]\.type: \[7\] is no kind/',
        ];
        yield 'no kind' => [
            $change(static function (array &$d): void { unset($d['observations'][3]['type']); }),
            '/^observations\[3\]\.type: is missing/',
        ];
        yield 'no position' => [$change(static function (array &$d): void {
            $d['stations'][] = ['id' => 'Y'];
            $d['observations'][] = ['type' => 'horizontal-distance', 'from' => 'P1', 'to' => 'Y', 'value' => 10.0, 'sd' => 0.001];
        }), '/^stations: Y: no approximate .* can be found/'];
        yield 'negative sd' => [
            $change(static function (array &$d): void { $d['observations'][0]['sd'] = -1; }),
            '/observations\[0\]\.sd: must be positive/',
        ];
        yield 'absurd distance' => [
            $change(static function (array &$d): void { $d['observations'][2]['value'] = -5.0; }),
            '/observations\[2\]\.value: a distance of -5 m cannot be/',
        ];
        yield 'not a covariance' => [
            $change(static function (array &$d): void { $d['observations'][56]['covariance'] = [[1, 2, 0], [2, 1, 0], [0, 0, 1]]; }),
            '/observations\[56\]\.covariance: is not symmetric and positive definite/',
        ];
        yield 'unknown crs' => [
            $change(static function (array &$d): void { $d['frame'] = ['type' => 'crs', 'crs' => 'EPSG:1']; }),
            '/frame\.crs: EPSG:1 is not in the registry/',
        ];
        yield 'no sd' => [
            $change(static function (array &$d): void { unset($d['observations'][0]['sd']); }),
            '/observations\[0\]: this direction has no standard deviation/',
        ];
        yield 'two stations at one place' => [$change(static function (array &$d): void {
            foreach (['e', 'n', 'h'] as $c) {
                $d['stations'][1][$c] = $d['stations'][0][$c];
            }
        }), '/observations: a direction runs between P1 and P2, which lie at one place/'];
        yield 'outside the projection' => [$change(static function (array &$d): void {
            $d['frame'] = ['type' => 'crs', 'crs' => 'EPSG:25830'];
            $d['stations'][1]['e'] = 2e7;
        }), '/a station at e 20000000.000, n 2040.076 is outside EPSG:25830/'];
        yield 'held without value' => [
            $change(static function (array &$d): void { unset($d['stations'][0]['h']); }),
            '/stations\[0\]\.h: station "P1" is held or weighted in h but has no value/',
        ];
    }

    /** @param array<string, mixed> $document */
    #[DataProvider('badInput')]
    public function testBadInputIsNamedExactly(array $document, string $message): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches($message);
        $this->adjust(json_encode($document, \JSON_THROW_ON_ERROR));
    }

    /** Vectors over sixty kilometres and no control: a datum defect; free, its three translations and nothing else. */
    public function testFreeVectorNetworkOnTheEllipsoid(): void
    {
        $frame = new GridFrame(Systems::horizontal('EPSG:25830'));
        $places = [
            'A' => [480000.0, 6000000.0, 100.0], 'B' => [540000.0, 6010000.0, 300.0],
            'C' => [510000.0, 6050000.0, 700.0], 'D' => [500000.0, 6020000.0, 50.0],
        ];
        $stations = $observations = $at = [];
        foreach ($places as $id => [$e, $n, $h]) {
            $at[$id] = $frame->geometry($e, $n, $h)['position'];
            $stations[] = ['id' => $id, 'e' => $e, 'n' => $n, 'h' => $h];
        }
        foreach ([['A', 'B'], ['B', 'C'], ['C', 'A'], ['A', 'D'], ['D', 'C']] as $i => [$a, $b]) {
            $observations[] = [
                'type' => 'vector', 'from' => $a, 'to' => $b, 'dx' => $at[$b][0] - $at[$a][0] + 0.001 * $i,
                'dy' => $at[$b][1] - $at[$a][1] - 0.002 * $i, 'dz' => $at[$b][2] - $at[$a][2],
                'covariance' => [[2.5e-5, 0, 0], [0, 2.5e-5, 0], [0, 0, 2.5e-5]],
            ];
        }
        $json = json_encode([
            'format' => 'mensura-network/1', 'frame' => ['type' => 'crs', 'crs' => 'EPSG:25830'], 'settings' => [],
            'stations' => $stations, 'observations' => $observations,
        ], \JSON_THROW_ON_ERROR);
        $free = $this->adjust($json, true);
        self::assertSame([12, 6], [$free->parameterCount, $free->redundancy]);
        self::assertEqualsWithDelta(6.0, array_sum(array_column($free->observations, 'redundancyNumber')), 1e-6);
        $this->expectExceptionMessageMatches(
            '/stations: A, B, C, D: datum defect: nothing fixes their position east, position north, height/',
        );
        $this->adjust($json);
    }

    public function testCoordinatesNothingTouchesStayAsGiven(): void
    {
        $document = Fixture::json('network/levelling.input.json');
        $result = $this->adjust(json_encode($document, \JSON_THROW_ON_ERROR));
        self::assertSame((float) $document['stations'][2]['e'], $result->stations[2]['e']);
        self::assertSame(0.0, $result->stations[2]['sd']['e']);
        // A bench mark without a plan position is not given one.
        unset($document['stations'][2]['e'], $document['stations'][2]['n']);
        self::assertNull($this->adjust(json_encode($document, \JSON_THROW_ON_ERROR))->stations[2]['e']);
    }

    private function adjust(string $json, bool $free = false, ?float $screen = null): AdjustmentResult
    {
        return (new Adjustment((new NetworkJsonReader(Systems::frames()))->read($json), $free))->run($screen);
    }
}
