<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Guess;
use Mensura\Exchange\Delimited\RecordReader;
use Mensura\Exchange\Dxf\DxfWriter;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Drawings and tables of coordinates: what goes in comes out, whatever it is called. */
final class DrawingTest extends TestCase
{
    /** @return iterable<string, array{string, string}> */
    public static function layers(): iterable
    {
        yield 'plain' => ['POINTS-CONTROL', 'POINTS-CONTROL'];
        yield 'blanks and signs' => ['edge of works / 2', 'edge_of_works_2'];
        yield 'other letters' => ['Böschung', 'B_schung'];
        yield 'nothing left' => ['', '0'];
        yield 'long' => [str_repeat('a', 90), str_repeat('a', 60)];
    }

    #[DataProvider('layers')]
    public function testLayerNamesEveryReaderAccepts(string $name, string $layer): void
    {
        self::assertSame($layer, DxfWriter::layerName($name));
    }

    public function testThousandsOfPointsComeBackToTheMicrometre(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(21));
        $dxf = new DxfWriter();
        $points = [];
        for ($i = 0; $i < 2000; ++$i) {
            $points[] = $p = [
                $random->getInt(0, 10 ** 12) / 1e6, 6e6 + $random->getInt(0, 10 ** 12) / 1e6,
                $random->getInt(-10 ** 9, 10 ** 9) / 1e6,
            ];
            $dxf->point('P', ...$p);
        }
        $back = Drawings::entities($dxf, 'point');
        self::assertCount(2000, $back);
        foreach ($back as $i => $read) {
            self::assertEqualsWithDelta($points[$i], $read->vertices[0], 1e-6);
        }
    }

    /** Group codes of the file are pairs of lines; handles are unique; every section is closed. */
    public function testTheFileIsWellFormed(): void
    {
        $dxf = new DxfWriter();
        $dxf->layer('A', 3);
        for ($i = 0; $i < 5; ++$i) {
            $dxf->point('A', (float) $i, 0.0, 0.0);
            $dxf->text('A', (float) $i, 0.0, 0.0, 1.0, "P$i");
        }
        $dxf->polyline3d('A', [[0.0, 0.0, 0.0], [1.0, 1.0, 1.0]], true);
        $lines = explode("\n", rtrim(strtr(Drawings::text($dxf), ["\r\n" => "\n"])));
        self::assertSame(0, \count($lines) % 2);
        $handles = $sections = [];
        foreach (array_chunk($lines, 2) as [$code, $value]) {
            self::assertMatchesRegularExpression('/^\s*\d+$/', $code);
            if (5 === (int) $code) {
                $handles[] = $value;
            }
            if (0 === (int) $code && \in_array($value, ['SECTION', 'ENDSEC'], true)) {
                $sections[] = $value;
            }
        }
        self::assertSame($handles, array_unique($handles));
        self::assertSame(\count($sections) / 2, \count(array_filter($sections, static fn (string $s): bool => 'SECTION' === $s)));
        self::assertSame('EOF', end($lines));
    }

    public function testATextCannotBreakTheFile(): void
    {
        $dxf = new DxfWriter();
        $dxf->text('A', 0.0, 0.0, 0.0, 1.0, "line one\n  0\nEOF\r%%c 5 €");
        $texts = Drawings::entities($dxf, 'text');
        self::assertCount(1, $texts);
        self::assertStringNotContainsString("\n", $texts[0]->text);
        self::assertStringContainsString('€', $texts[0]->text);
    }

    public function testWhatIsNotADrawingIsNamed(): void
    {
        foreach (['', 'hello', "0\nSECTION\n2\nENTITIES\n0\n"] as $text) {
            try {
                Drawings::entities($text);
                self::fail($text);
            } catch (UnusableInput $e) {
                self::assertStringContainsString('DXF', $e->getMessage());
            }
        }
    }

    /** @return iterable<string, array{string}> names a spreadsheet or a reader might take for something else */
    public static function names(): iterable
    {
        foreach ([
            'KT01', '1001', 'Müller\'s gate', 'a, b', '"quoted"', 'semi;colon', '=1+1', '+1+x', '+49', '-12', '@gate',
            "tab\there",
        ] as $name) {
            yield $name => [$name];
        }
    }

    #[DataProvider('names')]
    public function testNamesSurviveATable(string $name): void
    {
        $csv = Drawings::csv([[
            'name' => $name, 'e' => 493120.4123, 'n' => 6028061.2384, 'h' => 236.418, 'code' => 'X',
            'role' => 'control', 'source' => 'file',
        ]], 'remark');
        $table = DelimitedTable::parse($csv);
        $record = RecordReader::read($table, Guess::of(FileKind::Points, $table))->records[0];
        // A cell a spreadsheet would run is quoted; its text is still there.
        self::assertSame(\in_array($name[0], ['=', '@'], true) || '+1+x' === $name ? "'".$name : $name, $record->name);
        self::assertEqualsWithDelta([493120.4123, 6028061.2384, 236.418], [$record->e, $record->n, $record->h], 1e-5);
    }
}
