<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\PointsCsv\PointsCsvReader;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PointsCsvTest extends TestCase
{
    /** @return iterable<string, array{string}> */
    public static function sameThree(): iterable
    {
        yield 'plain' => ["id,e,n,h\na,1,2,3\nb,4,5,6\n"];
        yield 'other order, more columns, Windows ends' => ["code,h,n,e,id\r\nX,3,2,1,a\r\nY,6,5,4,b\r\n"];
        yield 'byte order mark and capitals' => ["\xEF\xBB\xBFID,E,N,H\na,1,2,3\nb,4,5,6"];
        yield 'quotes and blank lines' => ["id,e,n,h\n\"a\",1,2,3\n\n\"b\",4,5,6\n\n"];
        yield 'blanks around numbers' => ["id,e,n,h\na, 1 , 2 ,3\nb,4,5,6 \n"];
    }

    #[DataProvider('sameThree')]
    public function testFormsOfOneFile(string $csv): void
    {
        self::assertEquals(['names' => ['a', 'b'], 'x' => [1.0, 4.0], 'y' => [2.0, 5.0], 'z' => [3.0, 6.0]], self::read($csv));
    }

    /** @return iterable<string, array{string, string}> */
    public static function faults(): iterable
    {
        yield 'empty' => ['', '/p\.csv line 1: is empty/'];
        yield 'binary' => ["id,e\0,n,h\n", '/p\.csv line 1: is not text/'];
        yield 'no height' => ["id,e,n\na,1,2\n", '/p\.csv line 1: has no column "h"; it has id, e, n/'];
        yield 'cut off' => ["id,e,n,h\na,1,2,3\nb,4,5", '/p\.csv line 3: has 3 columns, 4 are needed/'];
        yield 'a word' => ["id,e,n,h\na,1,two,3\n", '/p\.csv line 2: column n: "two" is not a number/'];
        yield 'NaN' => ["id,e,n,h\na,NAN,2,3\n", '/line 2: column e: "NAN" is not a number/'];
        yield 'beyond' => ["id,e,n,h\na,1,2,3\nb,1,2,1e12\n", '/line 3: has a coordinate beyond a million kilometres/'];
        yield 'infinite' => ["id,e,n,h\na,1e999,2,3\n", '/line 2: has a coordinate beyond/'];
    }

    #[DataProvider('faults')]
    public function testFaultsNameFileAndLine(string $csv, string $message): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches($message);
        self::read($csv);
    }

    /** @return array{names: list<string>, x: list<float>, y: list<float>, z: list<float>} */
    private static function read(string $csv): array
    {
        $stream = fopen('php://memory', 'r+');
        self::assertIsResource($stream);
        fwrite($stream, $csv);
        rewind($stream);

        return PointsCsvReader::read($stream, 'p.csv');
    }
}
