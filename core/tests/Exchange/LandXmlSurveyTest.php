<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\LandXml\LandXmlDesign;
use Mensura\Exchange\LandXml\LandXmlSurvey;
use Mensura\Exchange\LandXml\SurveySight;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Survey observations as the published schema LandXML-1.2 names them (element and attribute names from memory). */
final class LandXmlSurveyTest extends TestCase
{
    private const METRIC = '<Metric linearUnit="meter" angularUnit="decimal degrees" directionUnit="decimal degrees"/>';
    private const POINTS = '<CgPoints><CgPoint name="A">200.000 100.000 10.500</CgPoint>'
        .'<CgPoint name="B" code="PEG">300 100</CgPoint></CgPoints>';

    public function testBothFacesAreBroughtToTheFirst(): void
    {
        $survey = self::survey(self::METRIC, '
<InstrumentSetup id="S1" stationName="A" instrumentHeight="1.532"><InstrumentPoint pntRef="A"/>
<ObservationGroup id="G1" setupID="S1" setID="1">
<RawObservation targetHeight="1.6" horizAngle="10.5" zenithAngle="89.25" slopeDistance="120.125" directFace="true"
  timeStamp="2031-05-02T09:15:00"><TargetPoint pntRef="B"/></RawObservation>
<RawObservation targetHeight="1.6" horizAngle="190.502" zenithAngle="270.752" slopeDistance="120.127" directFace="false">
  <TargetPoint pntRef="B"/></RawObservation>
</ObservationGroup></InstrumentSetup>');
        [$one, $two] = $survey->sights;
        self::assertSame(['A', 'S1/1', 'B', 1.532, 1.6, 1], [$one->station, $one->set, $one->target, $one->hi, $one->ht, $one->face]);
        self::assertSame(['direction' => 10.5, 'zenith' => 89.25, 'slope-distance' => 120.125], $one->values);
        self::assertSame('2031-05-02 09:15:00', $one->at?->format('Y-m-d H:i:s'));
        self::assertSame(2, $two->face);
        self::assertEqualsWithDelta(['direction' => 10.502, 'zenith' => 89.248, 'slope-distance' => 120.127], $two->values, 1e-12);
        self::assertSame([], $survey->findings);
        self::assertSame([100.0, 200.0, 10.5], [$survey->points[0]->e, $survey->points[0]->n, $survey->points[0]->h]);
        self::assertNull($survey->points[1]->h);
        self::assertSame('PEG', $survey->points[1]->code);
    }

    /** What is written is what was read, in both faces and without a face, with and without heights; libxml finds it whole. */
    public function testWhatIsWrittenReadsBack(): void
    {
        $at = new \DateTimeImmutable('2031-05-02 09:15:00');
        $sight = static function (
            string $set, string $to, float $hi, ?int $face, array $values, ?\DateTimeImmutable $time = null,
        ): SurveySight {
            return new SurveySight(0, 'A', '', $set, $to, $hi, 0.0 === $hi ? 0.0 : 1.3, $face, $values, $time);
        };
        $sights = [
            $sight('1', 'B', 1.532, 1, ['direction' => 10.50123456789, 'zenith' => 89.25, 'slope-distance' => 120.125], $at),
            $sight('1', 'B', 1.532, 2, ['direction' => 10.502, 'zenith' => 89.248, 'slope-distance' => 120.127]),
            $sight('1', 'C & D', 0.0, 2, ['direction' => 359.9]),
            $sight('2', 'B', 0.0, null, ['azimuth' => 44.0, 'horizontal-distance' => 99.99]),
        ];
        $path = (string) tempnam(sys_get_temp_dir(), 'xml');
        $xml = new LandXmlDesign($path, 'Works', $at);
        $xml->points([
            ['name' => 'A', 'e' => 100.0, 'n' => 200.0, 'h' => 10.5, 'code' => ''],
            ['name' => 'B', 'e' => 1.0, 'n' => 2.0, 'h' => null, 'code' => ''],
        ]);
        $xml->sights($sights);
        $xml->close();
        $bytes = (string) file_get_contents($path);
        unlink($path);
        $back = LandXmlSurvey::read($bytes);
        self::assertSame([], $back->findings);
        self::assertCount(4, $back->sights);
        foreach ($sights as $i => $meant) {
            $found = $back->sights[$i];
            self::assertSame(['A', $meant->target, $meant->face], [$found->station, $found->target, $found->face]);
            self::assertEqualsWithDelta($meant->values, $found->values, 1e-12);
            self::assertEquals($meant->at, $found->at);
            self::assertSame($meant->ht, $found->ht);
        }
        self::assertSame([1.532, 1.532, 1.532, 0.0], array_column($back->sights, 'hi'));
        $sets = array_column($back->sights, 'set');
        self::assertSame($sets[0], $sets[2]);
        self::assertNotSame($sets[0], $sets[3]);
        $tree = simplexml_load_string($bytes);
        self::assertSame('190.502', (string) ($tree->Survey->ObservationGroup[0]->RawObservation[1]['horizAngle'] ?? ''));
        self::assertSame('false', (string) $tree->Survey->ObservationGroup[0]->RawObservation[1]['directFace']);
    }

    /** One foot is 0.3048 m, one US survey foot 1200/3937 m, 400 grads make a circle. */
    public function testUnitsAreThoseOfTheFile(): void
    {
        $observation = '<InstrumentSetup id="S" stationName="A" instrumentHeight="5"/>
<RawObservation setupID="S" targetHeight="4" azimuth="100" zenithAngle="%s" slopeDistance="100"><TargetPoint name="B"/></RawObservation>';
        $feet = self::survey(
            '<Imperial linearUnit="USSurveyFoot" angularUnit="grads" directionUnit="grads"/>', \sprintf($observation, '100'),
        )->sights[0];
        self::assertEqualsWithDelta(
            ['azimuth' => 90.0, 'zenith' => 90.0, 'slope-distance' => 100.0 * 1200.0 / 3937.0], $feet->values, 1e-12,
        );
        self::assertEqualsWithDelta([5.0 * 1200.0 / 3937.0, 4.0 * 1200.0 / 3937.0], [$feet->hi, $feet->ht], 1e-12);
        $packed = self::survey(
            '<Imperial linearUnit="foot" angularUnit="decimal dd.mm.ss" directionUnit="radians"/>', \sprintf($observation, '89.3030'),
        )->sights[0];
        self::assertEqualsWithDelta(89.0 + 30.0 / 60.0 + 30.0 / 3600.0, $packed->values['zenith'], 1e-12);
        self::assertEqualsWithDelta(30.48, $packed->values['slope-distance'], 1e-12);
    }

    public function testHeightsOfTargetSetupsAndReducedObservationsAreTaken(): void
    {
        $survey = self::survey(self::METRIC, '
<InstrumentSetup id="S" stationName="A" instrumentHeight="1.5">
<Backsight id="b" circle="0" targetHeight="1.5"><BacksightPoint pntRef="C"/></Backsight></InstrumentSetup>
<TargetSetup id="T" targetHeight="1.45"/>
<ReducedObservation setupID="S" targetSetupID="T" azimuth="-10" horizDistance="55.5" vertDistance="2"><TargetPoint pntRef="B"/>
</ReducedObservation>');
        self::assertSame(['azimuth' => 350.0, 'horizontal-distance' => 55.5], $survey->sights[0]->values);
        self::assertSame(1.45, $survey->sights[0]->ht);
        self::assertSame(['C', ['direction' => 0.0]], [$survey->sights[1]->target, $survey->sights[1]->values]);
        self::assertStringContainsString('vertical distance is not taken', $survey->findings[0]->message);
    }

    /** @return iterable<string, array{string, string}> */
    public static function bad(): iterable
    {
        $of = static fn (string $attributes, string $target = '<TargetPoint pntRef="B"/>'): string => '
<InstrumentSetup id="S" stationName="A" instrumentHeight="1.5"/><InstrumentSetup id="U" stationName="B"/>
<RawObservation '.$attributes.'>'.$target.'</RawObservation>';
        yield 'no setup' => [$of('horizAngle="1"'), '/names no setup/'];
        yield 'strange setup' => [$of('setupID="X" horizAngle="1"'), '/"X" is not in the file/'];
        yield 'no target' => [$of('setupID="S" horizAngle="1"', ''), '/names no target/'];
        yield 'itself' => [$of('setupID="U" horizAngle="1"'), '/sights itself/'];
        yield 'no number' => [$of('setupID="S" horizAngle="north"'), '/direction is not a number/'];
        yield 'zenith' => [$of('setupID="S" horizAngle="1" zenithAngle="0"'), '/zenith angle/'];
        yield 'distance' => [$of('setupID="S" horizAngle="1" slopeDistance="-4"'), '/cannot be/'];
        yield 'height' => [$of('setupID="S" horizAngle="1" targetHeight="1600"'), '/is the unit right/'];
        yield 'nothing' => [$of('setupID="S"'), '/no angle and no distance/'];
    }

    #[DataProvider('bad')]
    public function testWhatCannotBeUsedIsNamedWithItsLine(string $observations, string $why): void
    {
        $survey = self::survey(self::METRIC, $observations);
        self::assertSame([], $survey->sights);
        self::assertSame(1, $survey->leftOut);
        self::assertMatchesRegularExpression($why, $survey->findings[0]->message);
        self::assertSame(6, $survey->findings[0]->line);
    }

    public function testAMissingHeightIsDoubted(): void
    {
        $survey = self::survey(self::METRIC, '<InstrumentSetup id="S" stationName="A" instrumentHeight="1.5"/>
<RawObservation zenithAngle="90.5" horizAngle="1"><TargetPoint pntRef="B"/><OffsetVals offsetLeftRight="0.2"/></RawObservation>');
        self::assertStringContainsString('target height is not stated', $survey->findings[0]->message);
        self::assertStringContainsString('stood off its mark', $survey->findings[1]->message);
    }

    public function testNamesAreReplacedEverywhere(): void
    {
        $survey = LandXmlSurvey::read(self::document(self::METRIC, '<InstrumentSetup id="S" stationName="A" instrumentHeight="1.5"/>
<RawObservation horizAngle="1"><TargetPoint pntRef="B"/></RawObservation>'), ['B' => 'B 1', 'A' => 'A 1']);
        self::assertSame([['A 1', 'B 1']], array_map(static fn (SurveySight $s): array => [$s->station, $s->target], $survey->sights));
        self::assertSame(['A 1', 'B 1'], array_column($survey->points, 'name'));
    }

    public function testWhatIsNoLandXmlIsRefused(): void
    {
        foreach ([
            '<LandXML><Units>' => '/line 1.*not well-formed/s', '<gpx></gpx>' => '/not LandXML/',
            '<LandXML></LandXML>' => '/units/', '<!DOCTYPE LandXML [<!ENTITY a "b">]><LandXML/>' => '/document type/',
            '<LandXML><Units><Metric linearUnit="ell" angularUnit="radians"/></Units></LandXML>' => '/linearUnit "ell"/',
            '<LandXML><Units><Metric linearUnit="meter" angularUnit="mils"/></Units></LandXML>' => '/angularUnit "mils"/',
        ] as $bytes => $why) {
            try {
                LandXmlSurvey::read($bytes);
                self::fail("Taken: $bytes");
            } catch (UnusableInput $e) {
                self::assertMatchesRegularExpression($why, $e->getMessage());
            }
        }
    }

    private static function survey(string $units, string $observations): LandXmlSurvey
    {
        return LandXmlSurvey::read(self::document($units, $observations));
    }

    private static function document(string $units, string $observations): string
    {
        return "<?xml version=\"1.0\"?>\n<LandXML xmlns=\"http://www.landxml.org/schema/LandXML-1.2\" version=\"1.2\">\n"
            ."<Units>$units</Units>\n"
            .self::POINTS."<Survey>$observations</Survey></LandXML>";
    }
}
