<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\LevelCsv\LevelCsv;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Levelled runs as delimited records, as docs/formats.md describes them. */
final class LevelCsvTest extends TestCase
{
    public function testRunsPatternsAndWordsOfSeveralLanguages(): void
    {
        $runs = LevelCsv::read(implode("\n", [
            'run;Art;Punkt;Ablesung [m];Zielweite [m]', 'A;R;BM1;1,5000;20', 'A;V;T1;1,2000;21', 'A;V;T1;1,2001;', 'A;R;BM1;1,5001;',
            'B;Rück;T1;1.4;', 'B;Zwischen;P9;1.1;', 'B;Vor;BM2;0.9;',
        ]));
        self::assertSame(['A', 'B'], array_column($runs, 'name'));
        self::assertSame(['BFFB', 'BF'], array_column($runs, 'pattern'));
        self::assertSame(['kind' => 'back', 'point' => 'BM1', 'reading' => 1.5, 'distance' => 20.0], $runs[0]['rows'][0]);
        self::assertNull($runs[0]['rows'][2]['distance']);
        self::assertSame(['back', 'intermediate', 'fore'], array_column($runs[1]['rows'], 'kind'));
    }

    public function testWithoutHeadingsTheOrderCounts(): void
    {
        [$run] = LevelCsv::read("B,BM1,1.5,20\nB,BM1,1.5,20\nF,T1,1.2,20\nF,T1,1.2,20\n");
        self::assertSame(['1', 'BBFF'], [$run['name'], $run['pattern']]);
        self::assertSame('2', LevelCsv::read("2,B,BM1,1.5,20\n2,F,T1,1.2,20\n")[0]['name']);
    }

    /** A hundred times what the stadia hairs span on the staff: common practice. */
    public function testStadiaHairsGiveTheDistance(): void
    {
        [$run] = LevelCsv::read(implode("\n", [
            'kind,point,upper,reading,lower,distance', 'B,BM1,1.6120,1.5000,1.3880,', 'F,T1,1.3000,1.2000,1.1000,25.5',
        ]));
        self::assertEqualsWithDelta([22.4, 25.5], array_column($run['rows'], 'distance'), 1e-9);
    }

    public function testWhatIsWrittenIsReadAgain(): void
    {
        $rows = [
            ['run' => '=1+1', 'kind' => 'back', 'point' => 'BM1', 'reading' => 1.50005, 'distance' => 20.125, 'height' => null],
            ['run' => '=1+1', 'kind' => 'fore', 'point' => 'T1', 'reading' => 1.2, 'distance' => null, 'height' => 100.3],
        ];
        $path = (string) tempnam(sys_get_temp_dir(), 'level');
        LevelCsv::write($rows, "Test\nMetres", $path);
        $text = (string) file_get_contents($path);
        unlink($path);
        self::assertStringContainsString("'=1+1", $text, 'A spreadsheet runs no formula.');
        self::assertStringContainsString('100.30000', $text);
        [$run] = LevelCsv::read($text);
        self::assertEqualsWithDelta([1.50005, 1.2], array_column($run['rows'], 'reading'), 0.0);
        self::assertSame([20.125, null], array_column($run['rows'], 'distance'));
    }

    /** @return iterable<string, array{string, string}> */
    public static function bad(): iterable
    {
        $head = "kind,point,upper,reading,lower\n";
        yield 'no readings' => ["kind,point\nB,A\n", '/line 1: no column is headed "reading"/'];
        yield 'kind' => [$head."X,A,,1,\n", '/line 2: "X" is no kind of sight/'];
        yield 'point' => [$head."B,,,1,\n", '/line 2: the reading has no point/'];
        yield 'reading' => [$head."B,A,,,\n", '/line 2: there is no reading/'];
        yield 'number' => [$head."B,A,,1.2.3,\n", '/line 2: the reading "1.2.3" is not a number/'];
        yield 'one hair' => [$head."B,A,1.6,1.5,\n", '/line 2: .* needs the upper and the lower hair/'];
    }

    #[DataProvider('bad')]
    public function testWhatIsWrongIsNamedByItsLine(string $bytes, string $why): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches($why);
        LevelCsv::read($bytes);
    }
}
