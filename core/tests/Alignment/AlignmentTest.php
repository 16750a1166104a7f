<?php

declare(strict_types=1);

namespace Mensura\Tests\Alignment;

use Mensura\Alignment\Alignment;
use Mensura\Alignment\Element;
use Mensura\Exchange\LandXml\LandXmlAlignments;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Lines, arcs and clothoids against closed forms, tables and R's adaptive quadrature (R 4.2.2, integrate, rel.tol 1e-13). */
final class AlignmentTest extends TestCase
{
    /**
     * A line of 60 m at a bearing of 75 degrees, a clothoid of 40 m to an arc of 50 m with radius 120 m to the right, the same
     * clothoid back, a line of 30 m; coordinates by R.
     */
    private const ROAD = <<<'XML'
        <?xml version="1.0" encoding="UTF-8"?>
        <LandXML xmlns="http://www.landxml.org/schema/LandXML-1.2" version="1.2"><Units><Metric linearUnit="meter" areaUnit="squareMeter"
        volumeUnit="cubicMeter" temperatureUnit="celsius" pressureUnit="milliBars"/></Units>
        <Alignments><Alignment name="road" length="220" staStart="100"><CoordGeom>
        <Line><Start>5000 1000</Start><End>5015.529142706 1057.955549577</End></Line>
        <Spiral length="40" radiusStart="INF" radiusEnd="120" rot="cw" spiType="clothoid"><Start>5015.529142706 1057.955549577</Start>
        <PI>5022.441053 1083.751150</PI><End>5023.710937131 1097.059408734</End></Spiral>
        <Curve rot="cw" crvType="arc" radius="120"><Start>5023.710937131 1097.059408734</Start>
        <Center>4904.253541799 1108.458123591</Center>
        <End>5018.103754622 1146.380795438</End></Curve>
        <Spiral length="40" radiusStart="120" radiusEnd="INF" rot="cw" spiType="clothoid"><Start>5018.103754622 1146.380795438</Start>
        <PI>5013.878945 1159.064381</PI><End>5001.353031923 1182.650160610</End></Spiral>
        <Line><Start>5001.353031923 1182.650160610</Start><End>4987.281907878 1209.145508657</End></Line>
        </CoordGeom></Alignment></Alignments></LandXML>
        XML;

    /** C(1) and S(1) of the Fresnel integrals, Abramowitz and Stegun 1964, table 7.7; more digits of them from memory. */
    public function testTheUnitClothoidIsFresnels(): void
    {
        [$e, $n, $bearing] = (new Element(0.0, 0.0, 0.0, 1.0, 0.0, \M_PI))->at(1.0);
        self::assertEqualsWithDelta([0.4382591473903548, 0.7798934003768228, 0.5 * \M_PI], [$e, $n, $bearing], 1e-14);
        // A longer one winds round; the integrals of 2.
        [$e, $n] = (new Element(0.0, 0.0, 0.0, 2.0, 0.0, 2.0 * \M_PI))->at(2.0);
        self::assertEqualsWithDelta([0.3434156783636982, 0.4882534060753408], [$e, $n], 1e-13);
    }

    public function testArcsAndLinesAreExact(): void
    {
        [$e, $n, $bearing] = (new Element(10.0, 20.0, 0.0, 50.0 * \M_PI, 0.01, 0.01))->at(50.0 * \M_PI);
        self::assertEqualsWithDelta([110.0, 120.0, 0.5 * \M_PI], [$e, $n, $bearing], 1e-11, 'A quarter of a circle to the right.');
        self::assertEqualsWithDelta([13.0, 24.0], \array_slice((new Element(10.0, 20.0, atan2(3.0, 4.0), 9.0))->at(5.0), 0, 2), 1e-13);
    }

    public function testARoadFromLandXml(): void
    {
        [$road] = self::read(self::ROAD);
        self::assertSame(['road', 100.0], [$road->name, $road->start]);
        self::assertEqualsWithDelta(220.0, $road->length, 2e-6);
        self::assertEqualsWithDelta([1082.233837737, 5021.472987163], \array_slice($road->at(85.0), 0, 2), 5e-7);
        [$e, $n, $bearing] = $road->at(220.0);
        self::assertEqualsWithDelta([1209.145508657, 4987.281907878, 117.971834635], [$e, $n, rad2deg($bearing)], 1e-5);
        $line = $road->chords();
        self::assertEqualsWithDelta($road->length, $line->length, 1e-9);
        foreach ($line->stations as $i => $s) {
            if ($i > 0) {
                [$x, $y] = $road->at(0.5 * ($s + $line->stations[$i - 1]));
                $middle = hypot($x - 0.5 * ($line->x[$i] + $line->x[$i - 1]), $y - 0.5 * ($line->y[$i] + $line->y[$i - 1]));
                self::assertLessThan(0.00021, $middle);
            }
        }
        $across = $line->across(85.0, 5.0);
        self::assertEqualsWithDelta(10.0, $across->length, 1e-9);
        self::assertEqualsWithDelta(1082.2338, 0.5 * ($across->x[0] + $across->x[1]), 3e-4);
        self::assertGreaterThan($across->y[1], $across->y[0], 'It runs from left to right of a road to the east.');
    }

    /** The same road in feet. */
    public function testFeet(): void
    {
        $feet = strtr(self::ROAD, ['<Metric linearUnit="meter"' => '<Imperial linearUnit="foot"', 'staStart="100"' => 'staStart="1000"']);
        [$road] = self::read($feet);
        self::assertEqualsWithDelta([220.0 * 0.3048, 304.8], [$road->length, $road->start], 1e-6);
    }

    /** @return iterable<string, array{array<string, string>, string}> */
    public static function faults(): iterable
    {
        yield 'the wrong way round' => [['<Curve rot="cw"' => '<Curve rot="ccw"'], 'Curve of road sets out against'];
        yield 'no sense' => [['<Curve rot="cw"' => '<Curve'], 'rot is cw or ccw'];
        yield 'another spiral' => [['spiType="clothoid"' => 'spiType="bloss"'], 'only clothoids are read'];
        yield 'a radius too small' => [['radiusEnd="120"' => 'radiusEnd="100"'], 'from the end the file states'];
        yield 'no length' => [['<Spiral length="40"' => '<Spiral'], 'has no length'];
        yield 'a place missing' => [['<PI>5022.441053 1083.751150</PI>' => ''], 'has no place "PI"'];
        yield 'nothing in it' => [['Line>' => 'Chain>'], 'Chain of road is not read'];
        yield 'cut short' => [['</CoordGeom></Alignment>' => ''], 'a.xml:'];
    }

    /** @param array<string, string> $change */
    #[DataProvider('faults')]
    public function testFaultsAreNamed(array $change, string $words): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage($words);
        self::read(strtr(self::ROAD, $change));
    }

    /** @return list<Alignment> */
    private static function read(string $xml): array
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'alignment');
        file_put_contents($path, $xml);
        try {
            return LandXmlAlignments::read($path, 'a.xml');
        } finally {
            unlink($path);
        }
    }
}
