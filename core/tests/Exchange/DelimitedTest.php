<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Guess;
use Mensura\Exchange\Delimited\Pointing;
use Mensura\Exchange\Delimited\RecordReader;
use Mensura\Quantity\Unit;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class DelimitedTest extends TestCase
{
    /** @return iterable<string, array{string, string}> */
    public static function delimiters(): iterable
    {
        yield 'commas' => ["point,e [m],n [m],h [m]\nA,1.5,2.5,3.5\n", ','];
        yield 'semicolons and decimal commas' => ["point;e [m];n [m];h [m]\nA;1,5;2,5;3,5\nB;1,5;2,5;3,5\n", ';'];
        yield 'tabs' => ["point\te [m]\tn [m]\th [m]\nA\t1.5\t2.5\t3.5\n", "\t"];
        yield 'bars' => ["point|e [m]|n [m]|h [m]\nA|1.5|2.5|3.5\n", '|'];
        yield 'a byte order mark' => ["\xEF\xBB\xBFpoint,e [m],n [m],h [m]\r\nA,1.5,2.5,3.5\r\n", ','];
    }

    #[DataProvider('delimiters')]
    public function testDelimitersAreGuessed(string $text, string $delimiter): void
    {
        $table = DelimitedTable::parse($text);
        self::assertSame($delimiter, $table->delimiter);
        $record = RecordReader::read($table, Guess::of(FileKind::Points, $table))->records[0];
        self::assertSame(['A', 1.5, 2.5, 3.5], [$record->name, $record->e, $record->n, $record->h]);
    }

    public function testHeadingsAreMatchedByMeaningWhateverTheirOrder(): void
    {
        $table = DelimitedTable::parse(
            "Slope Distance (ft),To,Direction [gon],From,Zenith Angle [dms],Target Height [mm]\n100,B,50,A,90 00 30,1600\n",
        );
        $mapping = Guess::best($table);
        self::assertSame(FileKind::TotalStation, $mapping->kind);
        self::assertSame(
            [Unit::InternationalFoot, Unit::Gon, Unit::DegreeMinuteSecond, Unit::Millimetre],
            [$mapping->units['distance'], $mapping->units['direction'], $mapping->units['zenith'], $mapping->units['ht']],
        );
        $record = RecordReader::read($table, $mapping)->records[0];
        self::assertEqualsWithDelta(
            [30.48, 45.0, 90 + 30 / 3600, 1.6], [$record->distance, $record->direction, $record->zenith, $record->ht],
            1e-12,
        );
    }

    public function testSetupsCarryDown(): void
    {
        $table = DelimitedTable::parse(
            'station,round,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance '
                ."[m],code\nA,1,1.5,,,,,,\n,,,B,1.6,10,90,50,\n,,,C,1.7,20,91,60,PEG\nD,,1.4,A,1.6,0,90,50,\n",
        );
        $records = RecordReader::read($table, Guess::best($table))->records;
        self::assertSame(
            [['A', '1', 1.5, 'B'], ['A', '1', 1.5, 'C'], ['D', '1', 1.4, 'A']],
            array_map(static fn (Pointing $r): array => [$r->station, $r->set, $r->hi, $r->target], $records),
        );
        self::assertSame('PEG', $records[1]->code);
    }

    public function testLineNumbersCountRemarksAndBlankLines(): void
    {
        $table = DelimitedTable::parse("# made by hand\n\npoint,e [m],n [m],h [m]\nA,1,2,3\n\n# more\nB,x,2,3\n");
        $findings = RecordReader::read($table, Guess::of(FileKind::Points, $table))->findings;
        self::assertSame(7, $findings[0]->line);
    }

    public function testWindowsTextIsUnderstood(): void
    {
        $table = DelimitedTable::parse(mb_convert_encoding("point,e [m],n [m],h [m],code\nMühle,1,2,3,Straße\n", 'Windows-1252', 'UTF-8'));
        self::assertSame('Mühle', RecordReader::read($table, Guess::of(FileKind::Points, $table))->records[0]->name);
    }

    public function testWrittenCoordinatesReadBackAndRunNoFormula(): void
    {
        $csv = Drawings::csv(
            [['name' => '=cmd()', 'e' => 1.23456, 'n' => -2.0, 'h' => null, 'code' => '-5', 'role' => 'surveyed', 'source' => 'file']],
            "remark\nsecond",
        );
        self::assertStringStartsWith("# remark\r\n# second\r\n", $csv);
        self::assertStringContainsString("'=cmd(),1.23456,-2.00000,,-5", $csv);
    }
}
