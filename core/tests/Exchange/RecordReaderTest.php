<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\Guess;
use Mensura\Exchange\Delimited\Mapping;
use Mensura\Exchange\Delimited\RecordReader;
use Mensura\Fault\UnusableInput;
use Mensura\Quantity\Unit;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What each kind of line means, and what each kind of bad line is told. */
final class RecordReaderTest extends TestCase
{
    private const CONTROL = 'point,easting [m],northing [m],height [m],held,sd easting [mm],sd northing [mm],sd height [mm]';
    private const ROUNDS = 'station,round,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance [m]';
    private const VECTORS = 'from,to,dX [m],dY [m],dZ [m],cov XX [m2],cov YY [m2],cov ZZ [m2]';

    /** @return iterable<string, array{string, string}> what is written under "held", what it means */
    public static function held(): iterable
    {
        foreach ([
            '' => '', 'no' => '', '0' => '', 'None' => '', '-' => '', 'yes' => 'enh', 'Y' => 'enh', '1' => 'enh',
            'ENH' => 'enh', '3D' => 'enh', 'plan' => 'en', 'en' => 'en', 'h' => 'h', 'Height' => 'h',
        ] as $text => $meaning) {
            yield "\"$text\"" => [(string) $text, $meaning];
        }
    }

    #[DataProvider('held')]
    public function testHeld(string $text, string $meaning): void
    {
        self::assertSame($meaning, self::read(self::CONTROL."\nA,1,2,3,$text,,,\n")->records[0]->held);
    }

    public function testStandardDeviationsInTheirUnit(): void
    {
        $record = self::read(self::CONTROL."\nA,1,2,3,no,4,0,7\n")->records[0];
        self::assertEqualsWithDelta([0.004, null, 0.007], $record->sd, 1e-15, 'Zero says nothing about a precision.');
    }

    /** @return iterable<string, array{string, string}> */
    public static function badLines(): iterable
    {
        yield 'held how' => [self::CONTROL."\nA,1,2,3,maybe,,,\n", '/held: "maybe" is not understood; write enh, en, h or no/'];
        yield 'negative precision' => [self::CONTROL."\nA,1,2,3,no,-4,4,4\n", '/sd_e: a standard deviation of -0\.004 cannot be/'];
        yield 'held height missing' => [self::CONTROL."\nA,1,2,,enh,,,\n", '/the height is held or weighted but missing/'];
        yield 'weighted height missing' => [self::CONTROL."\nA,1,2,,no,,,5\n", '/the height is held or weighted but missing/'];
        yield 'a height in space' => [self::CONTROL."\nA,1,2,200000,no,,,\n", '/height: 200000 m cannot be/'];
        yield 'no name' => [self::CONTROL."\n,1,2,3,no,,,\n", '/name: the name is missing/'];
        yield 'a long name' => [self::CONTROL."\n".str_repeat('Z', 61).",1,2,3,no,,,\n", '/is too long for a name \(60 characters\)/'];
        yield 'no station' => [self::ROUNDS."\n,,,B,1.6,10,90,50\n", '/no station is named on this line or above it/'];
        yield 'tall instrument' => [
            self::ROUNDS."\nA,1,15,B,1.6,10,90,50\n",
            '/instrument height: 15\.000 m is too tall; is the unit right\?/',
        ];
        yield 'tall target' => [self::ROUNDS."\nA,1,1.5,B,16,10,90,50\n", '/target height: 16\.000 m is too tall/'];
        yield 'no distance at all' => [self::ROUNDS."\nA,1,1.5,B,1.6,10,90,0\n", '/slope distance: 0 m cannot be/'];
        yield 'straight down' => [self::ROUNDS."\nA,1,1.5,B,1.6,10,180.2,50\n", '/zenith angle: 180\.2 degrees cannot be/'];
        yield 'negative zenith' => [self::ROUNDS."\nA,1,1.5,B,1.6,10,-1,50\n", '/zenith angle: -1 degrees cannot be/'];
        yield 'direction twice round' => [self::ROUNDS."\nA,1,1.5,B,1.6,800,90,50\n", '/direction: 800 cannot be/'];
        yield 'to itself' => [self::VECTORS."\nA,A,1,2,3,1e-6,1e-6,1e-6\n", '/the vector runs from "A" to itself/'];
        yield 'no covariance' => [
            self::VECTORS."\nA,B,1,2,3,0,0,0\n",
            '/the covariance is not positive definite; check its columns and their unit/',
        ];
        yield 'vector round the planet' => [self::VECTORS."\nA,B,3e7,2,3,1e-6,1e-6,1e-6\n", '/dx: 30000000 cannot be/'];
    }

    #[DataProvider('badLines')]
    public function testBadLinesAreLeftOutAndNamed(string $text, string $message): void
    {
        $reader = self::read($text);
        self::assertSame([], $reader->records);
        self::assertSame(1, $reader->leftOut);
        self::assertSame([Finding::ERROR, 2], [$reader->findings[0]->severity, $reader->findings[0]->line]);
        self::assertMatchesRegularExpression($message, $reader->findings[0]->message);
    }

    /** Common practice: the second face reads the circle half a turn on and the zenith angle back from a full one. */
    public function testTheSecondFaceComesOntoTheFirst(): void
    {
        $records = self::read(self::ROUNDS."\nA,1,1.5,B,1.6,10.0000,88.0000,50\nA,1,1.5,B,1.6,190.0020,272.0010,50\n")->records;
        self::assertEqualsWithDelta([10.002, 87.999], [$records[1]->direction, $records[1]->zenith], 1e-9);
        self::assertSame(10.0, $records[0]->direction);
    }

    public function testDirectionsStayWithinTheCircle(): void
    {
        $records = self::read(self::ROUNDS."\nA,1,1.5,B,1.6,-10,,\nA,1,1.5,C,1.6,370,,\n")->records;
        self::assertEqualsWithDelta([350.0, 10.0], array_column($records, 'direction'), 1e-12);
        self::assertSame([null, null], array_column($records, 'zenith'));
    }

    public function testOneBadLineDoesNotSpoilTheOthers(): void
    {
        $reader = self::read(self::ROUNDS."\nA,1,1.5,B,1.6,10,90,50\nA,1,1.5,C,1.6,x,90,50\nA,1,1.5,D,1.6,30,90,50\n");
        self::assertSame(['B', 'D'], array_column($reader->records, 'target'));
        self::assertSame(1, $reader->leftOut);
    }

    public function testZenithsAboutAHundredAreQuestioned(): void
    {
        $gon = self::read(self::ROUNDS."\nA,1,1.5,B,1.6,0,100.02,50\nA,1,1.5,C,1.6,10,99.9,50\nA,1,1.5,D,1.6,20,100.1,50\n");
        self::assertSame(Finding::WARNING, $gon->findings[0]->severity);
        self::assertStringContainsString('gather about 100.0 degrees', $gon->findings[0]->message);
        $level = self::read(self::ROUNDS."\nA,1,1.5,B,1.6,0,90.02,50\nA,1,1.5,C,1.6,10,89.9,50\nA,1,1.5,D,1.6,20,90.1,50\n");
        self::assertSame([], $level->findings);
        $two = self::read(self::ROUNDS."\nA,1,1.5,B,1.6,0,100.02,50\nA,1,1.5,C,1.6,10,99.9,50\n");
        self::assertSame([], $two->findings, 'Two sights uphill prove nothing.');
    }

    public function testDegreesAndGonInOneBookAreDoubted(): void
    {
        $rows = "\nA,1,1.5,B,1.6,0,100.02,50\nA,1,1.5,C,1.6,10,99.9,50\nA,1,1.5,D,1.6,20,100.1,50";
        $mixed = self::read(self::ROUNDS.$rows."\nB,1,1.5,A,1.6,0,90.1,50\nB,1,1.5,C,1.6,10,89.9,50\nB,1,1.5,D,1.6,20,90,50\n");
        self::assertStringContainsString('the zenith angles of A gather about 100', $mixed->findings[0]->message);
        self::assertStringContainsString('degrees and gon mixed', $mixed->findings[0]->message);
    }

    public function testHeightsThatAreMissingAreSaid(): void
    {
        $some = self::read(self::ROUNDS."\nA,1,1.5,B,1.6,0,90,50\nA,1,1.5,C,,10,90,50\nA,1,1.5,D,,20,90,50\n");
        self::assertSame([3, 'the target height is missing here and on 1 more line(s) and taken as 0'], [
            $some->findings[0]->line, $some->findings[0]->message,
        ]);
        $none = self::read("station,hi [m],target,direction [deg],zenith [deg]\nA,,B,0,90\n");
        self::assertStringStartsWith('no instrument height is stated anywhere', $none->findings[0]->message);
        self::assertStringStartsWith('no target height is stated anywhere', $none->findings[1]->message);
        // Directions alone need no heights.
        self::assertSame([], self::read("station,target,direction [deg]\nA,B,0\n")->findings);
    }

    public function testAMissingColumnIsAskedForBeforeAnyLineIsRead(): void
    {
        $reader = self::read("point,easting [m],height [m]\nA,1,3\n", FileKind::Points);
        self::assertSame(
            ['no column for northing; choose one'],
            array_map(static fn (Finding $f): string => $f->message, $reader->findings),
        );
        self::assertSame([], $reader->records);
    }

    public function testKindsAreToldApart(): void
    {
        foreach ([
            self::CONTROL."\nA,1,2,3,no,,,\n" => FileKind::Control,
            self::ROUNDS."\nA,1,1.5,B,1.6,10,90,50\n" => FileKind::TotalStation,
            self::VECTORS."\nA,B,1,2,3,1e-6,1e-6,1e-6\n" => FileKind::Vectors,
            "point,easting [m],northing [m],height [m],code\nA,1,2,3,X\n" => FileKind::Points,
        ] as $text => $kind) {
            self::assertSame($kind, Guess::best(DelimitedTable::parse($text))->kind);
        }
    }

    public function testWhatTheHeightsAreAboveIsReadFromTheHeading(): void
    {
        foreach ([
            'ellipsoidal height [m]' => 'ellipsoidal', 'Height (ellipsoidal)' => null,
            'h_ellipsoidal' => 'ellipsoidal', 'Orthometric Height (m)' => 'geoid',
            'height above geoid [m]' => 'geoid', 'levelled height [m]' => 'geoid', 'height [m]' => null,
            'rl [m]' => null,
        ] as $heading => $kind) {
            $table = DelimitedTable::parse("point,easting [m],northing [m],$heading\nA,1,2,3\n");
            self::assertSame($kind, Guess::of(FileKind::Points, $table)->heightsSaid($table), $heading);
        }
    }

    public function testAMappingSurvivesItsStorage(): void
    {
        $table = DelimitedTable::parse("a;b;c;d\n1;10;20;30\n");
        $mapping = Mapping::fromArray([
            'kind' => 'points', 'columns' => ['name' => 0, 'e' => 1, 'n' => 2, 'h' => 3],
            'units' => ['e' => 'ft', 'n' => 'ft', 'h' => null],
        ], $table);
        $again = Mapping::fromArray($mapping->toArray(), $table);
        self::assertEquals($mapping, $again);
        self::assertSame(Unit::InternationalFoot, $again->units['e']);
        self::assertSame(['height'], array_map(static fn ($f): string => $f->label, $again->questions()));
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function badMappings(): iterable
    {
        yield 'kind' => [['kind' => 'poem'], '/\/kind: is not a kind of file/'];
        yield 'column beyond' => [['kind' => 'points', 'columns' => ['e' => 9]], '/\/columns\/e: is not a column of this file/'];
        yield 'column no number' => [['kind' => 'points', 'columns' => ['e' => 'b']], '/\/columns\/e/'];
        yield 'unit of another quantity' => [
            ['kind' => 'points', 'columns' => ['e' => 1], 'units' => ['e' => 'gon']],
            '/\/units\/e: "gon" is not a unit of length/',
        ];
    }

    /** @param array<string, mixed> $data */
    #[DataProvider('badMappings')]
    public function testBadMappingsAreNamed(array $data, string $message): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches($message);
        Mapping::fromArray($data, DelimitedTable::parse("a;b\n1;2\n"));
    }

    public function testABlankSeparatedTableWithoutHeading(): void
    {
        $table = DelimitedTable::parse("1001 493120.412 6028061.238 236.418\n1002 493268.931 6028242.671 231.902\n");
        self::assertFalse($table->hasHeader);
        self::assertSame(['column 1', 'column 2', 'column 3', 'column 4'], $table->header);
        self::assertSame([1, 2], $table->lines);
    }

    private static function read(string $text, ?FileKind $kind = null): RecordReader
    {
        $table = DelimitedTable::parse($text);

        return RecordReader::read($table, null === $kind ? Guess::best($table) : Guess::of($kind, $table));
    }
}
