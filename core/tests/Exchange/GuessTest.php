<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\Evidence;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Guess;
use Mensura\Exchange\Delimited\Heading;
use Mensura\Exchange\Delimited\Mapping;
use Mensura\Exchange\Delimited\RecordReader;
use Mensura\Exchange\Delimited\UnitOffer;
use Mensura\Quantity\Unit;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What columns mean. The headings are common practice of survey offices in several countries. */
final class GuessTest extends TestCase
{
    /** @return iterable<string, array{string, FileKind, array<string, int>}> */
    public static function headings(): iterable
    {
        $ts = FileKind::TotalStation;
        $plan = "493120.412;6028061.238;236.418\nKT02;493268.931;6028242.671;231.902\n";
        yield 'German book' => [
            'Standpunkt;Satz;Lage;ih [m];Ziel;th [m];Hz [gon];V [gon];SD '
                ."[m]\nA;1;1;1.52;B;1.6;0.0012;99.8;97.214\nA;1;2;1.52;B;1.6;200.0031;300.2;97.213\n",
            $ts, [
                'station' => 0, 'set' => 1, 'face' => 2, 'hi' => 3, 'target' => 4, 'ht' => 5, 'direction' => 6,
                'zenith' => 7, 'distance' => 8,
            ],
        ];
        yield 'short' => [
            "Stn,hi,Pt,hr,Hz,V,HD\nA,1.5,B,1.6,10.5,90.1,100.2\nA,1.5,C,1.6,20.5,89.1,101.2\n",
            $ts, ['station' => 0, 'hi' => 1, 'target' => 2, 'ht' => 3, 'direction' => 4, 'zenith' => 5, 'horizontal' => 6],
        ];
        yield 'German list' => [
            "Punktnr.;Rechtswert;Hochwert;Höhe\nKT01;$plan", FileKind::Points,
            ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3],
        ];
        yield 'Spanish list' => ["Punto;Este;Norte;Cota\nKT01;$plan", FileKind::Points, ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3]];
        yield 'French list' => ["Matricule;E;N;Altitude\nKT01;$plan", FileKind::Points, ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3]];
        yield 'x to the north' => [
            "No;Y;X;Z\nKT01;$plan", FileKind::Points, ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3],
        ];
        yield 'x to the east' => [
            "P;X;Y;elev\nKT01;$plan", FileKind::Points, ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3],
        ];
    }

    /** @param array<string, int> $columns */
    #[DataProvider('headings')]
    public function testHeadingsOfSeveralLanguagesAreUnderstood(string $text, FileKind $kind, array $columns): void
    {
        $mapping = Guess::best(DelimitedTable::parse($text));
        self::assertSame($kind, $mapping->kind);
        self::assertSame($columns, $mapping->columns);
        self::assertSame([], array_filter($mapping->evidence, static fn (Evidence $e): bool => Evidence::DOUBTFUL === $e->level));
    }

    /** @return iterable<string, array{string, array<string, int>, bool}> */
    public static function headless(): iterable
    {
        yield 'easting first' => [
            "1001 493120.412 6028061.238 236.418 TOE\n1002 493268.931 6028242.671 231.902 TOE\n1003 493250.1 6028200.2 230.0 CREST\n",
            ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3, 'code' => 4], false,
        ];
        yield 'northing first' => [
            "P1,6028061.238,493120.412,236.418\nP2,6028242.671,493268.931,231.902\n", ['name' => 0, 'n' => 1, 'e' => 2, 'h' => 3], false,
        ];
        yield 'a code before the plan' => [
            "P1,TREE,493120.412,6028061.238,236.418\nP2,TREE,493268.931,6028242.671,231.902\n",
            ['name' => 0, 'e' => 2, 'n' => 3, 'h' => 4, 'code' => 1], false,
        ];
        yield 'small site numbers' => ["P1,150.25,210.5,12.1\nP2,160.25,211.5,12.2\n", ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3], true];
        yield 'heights that could be angles' => [
            "P1,150.25,210.5,95.1,TOE\nP2,190.25,251.5,99.2,TOE\nP3,130.1,222.5,104.0,CREST\n",
            ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3, 'code' => 4], true,
        ];
        yield 'seven digits both' => [
            "P1,3493120.412,6028061.238,236.4\nP2,3493268.931,6028242.671,231.9\n", ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3], true,
        ];
    }

    /** @param array<string, int> $columns */
    #[DataProvider('headless')]
    public function testAListWithoutHeadingsIsReadByItsValues(string $text, array $columns, bool $asks): void
    {
        $mapping = Guess::best(DelimitedTable::parse($text));
        ksort($columns);
        $found = $mapping->columns;
        ksort($found);
        self::assertSame($columns, $found);
        self::assertSame($asks, $mapping->asksOrder);
    }

    /** @return iterable<string, array{string, array<string, int>}> */
    public static function books(): iterable
    {
        yield 'gon, both faces' => [
            "KT01,I,1.52,KT04,1.6,0.0012,99.8,358.9\nKT01,II,1.52,KT04,1.6,200.0031,300.2,358.9\n"
                ."KT01,I,1.52,KT07,1.6,80.1,100.8,454.7\nKT01,II,1.52,KT07,1.6,280.1,299.2,454.7\n",
            ['station' => 0, 'face' => 1, 'hi' => 2, 'target' => 3, 'ht' => 4, 'direction' => 5, 'zenith' => 6, 'distance' => 7],
        ];
        yield 'target first, sexagesimal' => [
            "B;KT01;12 34 56;88 59 10;120.5\nC;KT01;112 34 56;90 59 10;220.5\nD;KT01;212 34 56;91 59 10;320.5\n",
            ['station' => 1, 'target' => 0, 'direction' => 2, 'zenith' => 3, 'distance' => 4],
        ];
    }

    /** @param array<string, int> $columns */
    #[DataProvider('books')]
    public function testABookWithoutHeadingsIsReadByItsValues(string $text, array $columns): void
    {
        $mapping = Guess::best(DelimitedTable::parse($text));
        self::assertSame(FileKind::TotalStation, $mapping->kind);
        ksort($columns);
        $found = $mapping->columns;
        ksort($found);
        self::assertSame($columns, $found);
        $levels = array_unique(array_map(static fn (Evidence $e): string => $e->level, array_values($mapping->evidence)));
        self::assertSame([Evidence::LIKELY], $levels);
    }

    public function testXAndYAreAskedWhereTheirSizeDoesNotTell(): void
    {
        $mapping = Guess::best(DelimitedTable::parse("P;X;Y;Z\nA;150.2;210.5;12\nB;160.2;211.5;13\n"));
        self::assertTrue($mapping->asksOrder);
        self::assertSame(Evidence::DOUBTFUL, $mapping->evidence['e']->level);
    }

    public function testValuesSpeakAgainstAHeading(): void
    {
        $sights = "A,B,10.5,%s,100.2\nA,C,20.5,%s,101.2\nA,D,30.5,%s,102.2\n";
        $level = Guess::best(DelimitedTable::parse("station,target,hz,v,sd\n".\sprintf($sights, 0.4, -1.2, 2.1)));
        self::assertSame(Evidence::DOUBTFUL, $level->evidence['zenith']->level);
        self::assertStringContainsString('above the horizon', $level->evidence['zenith']->why);
        $zenith = Guess::best(DelimitedTable::parse("station,target,hz,v,sd\n".\sprintf($sights, 89.4, 91.2, 92.1)));
        self::assertSame(Evidence::LIKELY, $zenith->evidence['zenith']->level, 'a single letter is not all that sure');
        $words = Guess::of(FileKind::Points, DelimitedTable::parse("point,easting,northing,height\nA,ten,2,3\nB,eleven,3,4\n"));
        self::assertSame('so its heading says, but "ten" is not a number', $words->evidence['e']->why);
    }

    /** @return iterable<string, array{string, list<array{string, Unit}>}> */
    public static function units(): iterable
    {
        $head = 'station,target,hi,ht,hz,v,sd';
        $row = static fn (float $hi, float $hz, float $v): string => "A,B,$hi,$hi,$hz,$v,100\n";
        yield 'gon and metres' => [
            "$head\n".$row(1.5, 380.2, 99.1).$row(1.5, 10.2, 101.1), [['length', Unit::Metre], ['angle', Unit::Gon]],
        ];
        yield 'degrees and feet' => [
            "$head\n".$row(5.1, 350.72, 89.71).$row(5.1, 10.88, 91.93), [['length', Unit::InternationalFoot], ['angle', Unit::Degree]],
        ];
        $packed = '';
        foreach ([12.3045, 14.1522, 100.0559, 200.5901, 310.4455, 33.3333, 44.4444] as $hz) {
            $packed .= $row(1.5, $hz, 89.5512);
        }
        yield 'packed' => ["$head\n$packed", [['length', Unit::Metre], ['angle', Unit::PackedDegree]]];
        yield 'a list with precisions' => [
            "point,easting,northing,height,sd e,sd n\nA,493120.4,6028061.2,236.4,4,4\nB,493268.9,6028242.7,231.9,5,5\n",
            [['length', Unit::Metre], ['precision', Unit::Millimetre]],
        ];
    }

    /** @param list<array{string, Unit}> $offers */
    #[DataProvider('units')]
    public function testOneUnitIsOfferedForEachKindOfQuantity(string $text, array $offers): void
    {
        $table = DelimitedTable::parse($text);
        $found = array_map(
            static fn (UnitOffer $o): array => [$o->group, $o->unit], UnitOffer::all($table, Guess::best($table), Unit::Metre),
        );
        self::assertSame($offers, $found);
    }

    public function testTheUnitOfTheProjectIsOfferedWhereNothingElseTells(): void
    {
        $table = DelimitedTable::parse("point,easting,northing,height\nA,1,2,3\n");
        self::assertSame(Unit::SurveyFoot, UnitOffer::all($table, Guess::of(FileKind::Points, $table), Unit::SurveyFoot)[0]->unit);
    }

    public function testAColumnChosenByHandTakesTheUnitOfItsHeading(): void
    {
        $table = DelimitedTable::parse("what,far [ft],wide (mm),Hz/gon\nA,1,2,3\n");
        $mapping = Mapping::fromArray(['kind' => 'points', 'columns' => ['name' => 0, 'e' => 1, 'n' => 2]], $table);
        self::assertSame(['e' => Unit::InternationalFoot, 'n' => Unit::Millimetre], $mapping->units);
        self::assertSame(Evidence::CHOSEN, $mapping->evidence['e']->level);
        self::assertSame([3], $mapping->unused($table));
        self::assertSame(Unit::Gon, Heading::of('Hz/gon')->unit);
        self::assertSame(['height', Unit::Metre], [Heading::of('Height m')->word, Heading::of('Height m')->unit]);
    }

    /** The second face reads the circle half a turn on and the zenith angle back from the full circle (common practice). */
    public function testFacesAreReadAndHeldAgainstTheZenithAngle(): void
    {
        $head = 'station,face,target,ht [m],hz [gon],v [gon],sd [m]';
        $table = DelimitedTable::parse(
            "$head\nA,I,B,1.5,12.5,99,50\nA,II,B,1.5,212.5,301,50\nA,2,C,1.5,30,98,50\nA,left,D,1.5,230,302,50\nA,x,E,1,1,99,9\n",
        );
        $reader = RecordReader::read($table, Guess::best($table));
        self::assertSame([1, 2, 2, 2], array_column($reader->records, 'face'));
        self::assertEqualsWithDelta([11.25, 11.25, 27.0, 27.0], array_column($reader->records, 'direction'), 1e-9);
        self::assertEqualsWithDelta([89.1, 89.1, 88.2, 88.2], array_column($reader->records, 'zenith'), 1e-9);
        $said = array_column($reader->findings, 'message');
        self::assertSame('face: "x" is not understood; write 1 or 2', $said[0]);
        self::assertSame('2 sight(s) state another face than their zenith angle shows; the zenith angle is followed', $said[1]);
    }

    public function testTheShapeOfHeadingsIsTheirMeaningNotTheirSpelling(): void
    {
        self::assertSame(Heading::shape(['Punkt-Nr.', 'Höhe [m]']), Heading::shape(['PUNKTNR', 'hoehe_m']));
        self::assertNotSame(Heading::shape(['Punkt', 'Höhe [m]']), Heading::shape(['Punkt', 'Höhe [ft]']));
    }
}
