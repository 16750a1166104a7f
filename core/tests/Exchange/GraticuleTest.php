<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Guess;
use Mensura\Exchange\Delimited\RecordReader;
use Mensura\Quantity\Unit;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Latitudes and longitudes in columns. Notations: common practice. */
final class GraticuleTest extends TestCase
{
    /** @return iterable<string, array{string, string, string, Unit, float, float}> */
    public static function notations(): iterable
    {
        yield 'decimal degrees' => ['deg', '12.5', '-45.25', Unit::Degree, 12.5, -45.25];
        yield 'decimal degrees with letters' => ['deg', '12.5 S', '45.25w', Unit::Degree, -12.5, -45.25];
        yield 'decimal degrees with signs of degrees' => ['', '12.5°', '45.25° W', Unit::Degree, 12.5, -45.25];
        yield 'a true minus sign' => ['deg', '−12.5', '45.25', Unit::Degree, -12.5, 45.25];
        yield 'degrees, minutes, seconds' => ['', '12 30 00 S', '45 15 00 E', Unit::DegreeMinuteSecond, -12.5, 45.25];
        yield 'colons' => ['', '-12:30:00.0', '45:15:00', Unit::DegreeMinuteSecond, -12.5, 45.25];
        yield 'degrees and decimal minutes' => ['', "12°30.0'N", "45°15.0'W", Unit::DegreeMinuteSecond, 12.5, -45.25];
        yield 'packed' => ['d.mmss', '12.3000', '-45.1500', Unit::PackedDegree, 12.5, -45.25];
        yield 'gon' => ['gon', '50', '-100', Unit::Gon, 45.0, -90.0];
        yield 'longitudes to 360' => ['deg', '12.5', '315', Unit::Degree, 12.5, 315.0];
    }

    #[DataProvider('notations')]
    public function testNotations(string $unit, string $lat, string $lon, Unit $expected, float $latitude, float $longitude): void
    {
        $bracket = '' === $unit ? '' : " [$unit]";
        $table = DelimitedTable::parse("mark;Latitude$bracket;Longitude$bracket;height [m]\nA;$lat;$lon;3.5\n");
        $mapping = Guess::best($table);
        self::assertTrue($mapping->isGeographic());
        if (str_contains($lat, '.5°')) {
            self::assertSame(
                ['latitude', 'longitude'],
                array_column($mapping->questions(), 'label'),
                'A sign of degrees after a decimal does not tell the unit of the column.',
            );
        } else {
            self::assertSame([$expected, $expected], [$mapping->units['lat'], $mapping->units['lon']]);
        }
        $record = RecordReader::read($table, $mapping)->records[0];
        self::assertEqualsWithDelta([$latitude, $longitude, 3.5], [$record->lat, $record->lon, $record->h], 1e-13);
        self::assertNull($record->e ?? $record->n);
    }

    /** @return iterable<string, array{string, string}> */
    public static function faults(): iterable
    {
        yield 'an impossible latitude' => ['A,91,5,1', 'latitude: 91 degrees cannot be; are latitude and longitude exchanged?'];
        yield 'an impossible longitude' => ['A,9,361,1', 'longitude: 361 degrees cannot be'];
        yield 'the letter of a longitude' => [
            'A,9 W,5,1',
            'latitude: "9 W" is not understood; write it with a sign, or with the letter N or S',
        ];
        yield 'sign and letter' => ['A,9,-5 W,1', 'longitude: "-5 W" is not understood; write it with a sign, or with the letter E or W'];
        yield 'nothing' => ['A,9,,1', 'the longitude is missing; is the line cut off?'];
        yield 'minutes in a column of degrees' => ['A,39 05,5,1', 'latitude: "39 05" is not a number'];
        yield 'not a number' => ['A,nan,5,1', 'latitude: "nan" is not a number'];
    }

    #[DataProvider('faults')]
    public function testFaultsAreNamedByLine(string $row, string $message): void
    {
        $table = DelimitedTable::parse("mark,lat [deg],lon [deg],height [m]\n$row\n");
        $reader = RecordReader::read($table, Guess::best($table));
        self::assertSame([], $reader->records);
        self::assertSame([2, $message], [$reader->findings[0]->line, $reader->findings[0]->message]);
    }

    public function testALatitudeAloneIsNotAPlace(): void
    {
        $table = DelimitedTable::parse("mark,lat [deg],height [m]\nA,9,1\n");
        $mapping = Guess::of(FileKind::Points, $table);
        self::assertSame(['longitude'], array_column($mapping->missing(), 'label'));
        self::assertSame('no column for longitude; choose one', RecordReader::read($table, $mapping)->findings[0]->message);
    }

    public function testAControlListOfLatitudes(): void
    {
        $table = DelimitedTable::parse("mark,lat [deg],lon [deg],height [m],held,sd e [mm]\nA,9,1,5,enh,\nB,9.01,1,5,,20\n");
        $mapping = Guess::best($table);
        self::assertSame(FileKind::Control, $mapping->kind);
        self::assertSame([0.02, null, null], RecordReader::read($table, $mapping)->records[1]->sd);
    }
}
