<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\NetworkJson\NetworkJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Network\GridFrame;
use Mensura\Network\PlaneFrame;
use Mensura\Observation\ObservationKind;
use Mensura\Tests\Reference\Systems;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The network file of the batch contract: what it says, and every way in which it can be wrong, named by its place. */
final class NetworkJsonTest extends TestCase
{
    private const COVARIANCE = [[1e-6, 0, 0], [0, 1e-6, 0], [0, 0, 1e-6]];

    /**
     * @param array<string, mixed> $over
     *
     * @return array<string, mixed>
     */
    private static function document(array $over = []): array
    {
        return $over + [
            'format' => 'mensura-network/1', 'frame' => ['type' => 'plane'],
            'stations' => [
                ['id' => 'A', 'e' => 0, 'n' => 0, 'h' => 10, 'fixed' => ['e', 'n', 'h']],
                ['id' => 7, 'e' => 100.0, 'n' => 0.0],
                ['id' => 'B'],
                ['id' => 'C'],
            ],
            'observations' => [['type' => 'slope-distance', 'from' => 'A', 'to' => 'B', 'value' => 100.0]],
        ];
    }

    public function testWhatItSaysIsRead(): void
    {
        $network = self::read(self::document([
            'settings' => [
                'confidence' => 0.99, 'maxIterations' => 30, 'refraction' => 0.2,
                'sigma' => ['direction' => 0.0003, 'distance' => [0.002, 3]],
                'centring' => ['instrument' => 0.001, 'target' => 0.0015], 'scaleByVarianceFactor' => true,
            ],
            'observations' => [
                ['type' => 'direction', 'from' => 'A', 'to' => 'B', 'set' => 2, 'value' => 45.5, 'sd' => 0.0002],
                ['type' => 'zenith', 'from' => 'A', 'to' => 'B', 'value' => 91.0, 'hi' => 1.5, 'ht' => 1.6, 'use' => 'aside'],
                ['type' => 'angle', 'at' => 'A', 'back' => 'C', 'to' => 'B', 'value' => 30.0],
                [
                    'type' => 'vector', 'from' => 'A', 'to' => 'B', 'dx' => 1, 'dy' => 2, 'dz' => 3,
                    'covariance' => self::COVARIANCE, 'use' => ['dz' => 'aside'],
                ],
            ],
        ]));
        self::assertInstanceOf(PlaneFrame::class, $network->frame);
        self::assertSame(['A', '7', 'B', 'C'], array_map(static fn ($s): string => $s->id, $network->stations));
        self::assertSame([true, true, true], $network->stations[0]->fixed);
        self::assertNull($network->stations[1]->h);
        self::assertSame(0.99, $network->settings->confidence);
        [$direction, $zenith, $angle, $vector] = $network->observations;
        self::assertSame(['2', 0.0002], [$direction->set, $direction->sd]);
        self::assertSame([1.5, 1.6, false], [$zenith->instrumentHeight, $zenith->targetHeight, $zenith->used[0]]);
        self::assertSame(['A', 'C', 'B'], [$angle->from, $angle->back, $angle->to]);
        self::assertSame(ObservationKind::Vector, $vector->kind);
        self::assertSame([true, true, false], $vector->used);
    }

    public function testAFrameOnTheEarth(): void
    {
        $network = self::read(self::document(['frame' => [
            'type' => 'crs', 'crs' => 'EPSG:25830', 'geoid' => '/usr/share/proj/egm96_15.gtx',
        ]]));
        self::assertInstanceOf(GridFrame::class, $network->frame);
    }

    public function testPreanalysisNeedsNoValues(): void
    {
        $document = self::document(['observations' => [
            ['type' => 'slope-distance', 'from' => 'A', 'to' => '7'],
            ['type' => 'vector', 'from' => 'A', 'to' => '7', 'covariance' => self::COVARIANCE],
        ]]);
        self::assertCount(2, self::read($document, true)->observations);
        $this->expectExceptionMessageMatches('/observations\[0\]\.value: is missing/');
        self::read($document);
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function faults(): iterable
    {
        $observation = static fn (array $o): array => ['observations' => [$o + [
            'type' => 'slope-distance', 'from' => 'A', 'to' => 'B', 'value' => 100.0,
        ]]];
        $station = static fn (array $s): array => ['stations' => [$s + ['id' => 'A', 'e' => 0, 'n' => 0, 'h' => 0]]];
        $vector = static fn (array $v): array => ['observations' => [$v + [
            'type' => 'vector', 'from' => 'A', 'to' => 'B', 'dx' => 1, 'dy' => 2, 'dz' => 3,
            'covariance' => self::COVARIANCE,
        ]]];
        yield 'format' => [['format' => 'mensura-network/9'], '/^format: must be "mensura-network\/1"/'];
        yield 'no stations' => [['stations' => []], '/stations: there are none/'];
        yield 'stations no list' => [['stations' => ['A' => 1]], '/stations: must be a list/'];
        yield 'a station no object' => [['stations' => ['A']], '/stations\[0\]: must be an object/'];
        yield 'no observations' => [['observations' => []], '/observations: there are none/'];
        yield 'frame' => [['frame' => ['type' => 'globe']], '/frame\.type: must be "plane" or "crs"/'];
        yield 'no frame' => [['frame' => null], '/frame\.type/'];
        yield 'no system' => [['frame' => ['type' => 'crs']], '/frame\.crs: must be a code/'];
        yield 'unknown system' => [['frame' => ['type' => 'crs', 'crs' => 'EPSG:999999']], '/frame\.crs: .*not in the registry/'];
        yield 'a system without eastings' => [['frame' => ['type' => 'crs', 'crs' => 'EPSG:4258']], '/frame\.crs: /'];
        yield 'geoid no path' => [['frame' => ['type' => 'crs', 'crs' => 'EPSG:25830', 'geoid' => 5]], '/frame\.geoid: must be the path/'];
        yield 'geoid not there' => [
            ['frame' => ['type' => 'crs', 'crs' => 'EPSG:25830', 'geoid' => '/no/such.gtx']],
            '/frame\.geoid: .*such\.gtx/',
        ];
        yield 'confidence' => [['settings' => ['confidence' => 1.0]], '/settings\.confidence: must lie between 0 and 1/'];
        yield 'iterations' => [['settings' => ['maxIterations' => 0]], '/settings\.maxIterations: must lie between 1 and 1000/'];
        yield 'distance sigma' => [
            ['settings' => ['sigma' => ['distance' => 0.002]]],
            '/settings\.sigma\.distance: must be \[metres, parts per million\]/',
        ];
        yield 'negative distance sigma' => [
            ['settings' => ['sigma' => ['distance' => [-0.002, 2]]]],
            '/settings\.sigma\.distance: must not be negative/',
        ];
        yield 'scale' => [['settings' => ['scaleByVarianceFactor' => 'yes']], '/scaleByVarianceFactor: must be true or false/'];
        yield 'settings no object' => [['settings' => [1, 2]], '/settings: must be an object/'];
        yield 'direction sigma' => [['settings' => ['sigma' => ['direction' => 0]]], '/settings\.sigma\.direction: must be positive/'];
        yield 'no name' => [['stations' => [['e' => 1]]], '/stations\[0\]\.id: must be a station name/'];
        yield 'blank name' => [$station(['id' => ' ']), '/stations\[0\]\.id/'];
        yield 'held what' => [$station(['fixed' => ['x']]), '/stations\[0\]\.fixed: knows "e", "n" and "h", not "x"/'];
        yield 'held no list' => [$station(['fixed' => 'enh']), '/stations\[0\]\.fixed: must be a list/'];
        yield 'held without a value' => [
            ['stations' => [['id' => 'A', 'fixed' => ['h']]]],
            '/station "A" is held or weighted in h but has no value/',
        ];
        yield 'weighted without a value' => [['stations' => [['id' => 'A', 'sd' => ['e' => 0.01]]]], '/held or weighted in e/'];
        yield 'not on this planet' => [$station(['e' => 1e9]), '/stations\[0\]\.e: .*not a coordinate on this planet/'];
        yield 'a word for a number' => [$station(['n' => 'north']), '/stations\[0\]\.n: must be a finite number/'];
        yield 'a standard deviation nobody has' => [$station(['sd' => ['e' => 1e-12]]), '/not a standard deviation anyone has/'];
        yield 'type' => [
            $observation(['type' => 'pacing']),
            '/observations\[0\]\.type: "pacing" is no kind of observation; it must be one of direction/',
        ];
        yield 'from' => [$observation(['from' => null]), '/observations\[0\]\.from: must be a station name/'];
        yield 'use' => [$observation(['use' => 'maybe']), '/observations\[0\]\.use: must be "full" or "aside"/'];
        yield 'negative distance' => [$observation(['value' => -1]), '/a distance of -1 m cannot be/'];
        yield 'a thousand kilometres' => [$observation(['value' => 2e6]), '/a distance of 2000000 m cannot be/'];
        yield 'zenith' => [$observation(['type' => 'zenith', 'value' => 360]), '/a zenith angle of 360 degrees cannot be/'];
        yield 'height difference' => [
            $observation(['type' => 'height-difference', 'value' => 20000]),
            '/a height difference of 20000 m cannot be/',
        ];
        yield 'direction' => [$observation(['type' => 'direction', 'value' => 1000]), '/1000 degrees is not an angle anyone reads/'];
        yield 'tall' => [$observation(['hi' => 1500]), '/observations\[0\]\.hi: 1500 m is not an instrument or target height/'];
        yield 'round' => [
            $observation(['type' => 'direction', 'value' => 1, 'set' => ['a']]),
            '/observations\[0\]\.set: must be the name of the round/',
        ];
        yield 'sd' => [$observation(['sd' => -0.001]), '/observations\[0\]\.sd: must be positive/'];
        yield 'angle without a back sight' => [
            ['observations' => [['type' => 'angle', 'at' => 'A', 'to' => 'B', 'value' => 3]]],
            '/observations\[0\]\.back: must be a station name/',
        ];
        yield 'long vector' => [$vector(['dx' => 3e7]), '/observations\[0\]\.dx: .*longer than any vector on this planet/'];
        yield 'two rows' => [
            $vector(['covariance' => \array_slice(self::COVARIANCE, 0, 2)]),
            '/covariance: must be three rows of three numbers/',
        ];
        yield 'not positive definite' => [
            $vector(['covariance' => [[1e-6, 2e-6, 0], [2e-6, 1e-6, 0], [0, 0, 1e-6]]]),
            '/covariance: is not symmetric and positive definite/',
        ];
        yield 'not symmetric' => [
            $vector(['covariance' => [[1e-6, 1e-7, 0], [0, 1e-6, 0], [0, 0, 1e-6]]]),
            '/covariance: is not symmetric/',
        ];
        yield 'use of a component' => [
            $vector(['use' => ['dx' => 'half']]),
            '/observations\[0\]\.use: must be "full" or "aside", alone or per component/',
        ];
    }

    /** @param array<string, mixed> $over */
    #[DataProvider('faults')]
    public function testFaultsAreNamedByTheirPlace(array $over, string $message): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches($message);
        self::read(self::document($over));
    }

    public function testWithoutARegistryAFrameOnTheEarthIsRefused(): void
    {
        $this->expectExceptionMessageMatches('/coordinate systems are not available here/');
        (new NetworkJsonReader())->read((string) json_encode(self::document(['frame' => ['type' => 'crs', 'crs' => 'EPSG:25830']])));
    }

    /** @param array<string, mixed> $document */
    private static function read(array $document, bool $preanalysis = false): \Mensura\Network\NetworkDefinition
    {
        return (new NetworkJsonReader(Systems::frames()))->read((string) json_encode($document), $preanalysis);
    }
}
