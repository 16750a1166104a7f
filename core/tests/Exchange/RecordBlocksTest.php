<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\Delimited\RecordBlocks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Records come out as PHP's own line and CSV readers see them, wherever the blocks end. */
final class RecordBlocksTest extends TestCase
{
    /** @param list<string> $records */
    #[DataProvider('texts')]
    public function testRecords(string $text, array $records): void
    {
        self::assertSame($records, $this->read($text));
    }

    /** @return iterable<string, array{string, list<string>}> */
    public static function texts(): iterable
    {
        yield 'nothing' => ['', []];
        yield 'without a last line end' => ["a,1\nb,2", ['a,1', 'b,2']];
        yield 'with one' => ["a,1\nb,2\n", ['a,1', 'b,2']];
        yield 'empty lines' => ["a\n\n\nb\n", ['a', '', '', 'b']];
        yield 'carriage returns' => ["a,1\r\nb,2\r\n\r\nc,3\r\n", ['a,1', 'b,2', '', 'c,3']];
        yield 'a quoted line end' => ["a,\"x\ny\",1\nb,2\n", ["a,\"x\ny\",1", 'b,2']];
        yield 'a quoted quotation mark' => ["a,\"x\"\"y\"\nb\n", ['a,"x""y"', 'b']];
        yield 'a quotation mark left open' => ["a\nb,\"x\nc\n", ['a', "b,\"x\nc"]];
    }

    /** Twenty thousand lines, many blocks; every 97th has a cell of two lines. */
    public function testBlocksEndBetweenRecords(): void
    {
        $records = [];
        for ($i = 0; $i < 20000; ++$i) {
            $records[] = 0 === $i % 97 ? "$i,\"first\nsecond\",".str_repeat('x', $i % 50) : "$i,plain,".str_repeat('y', $i % 71);
        }
        self::assertSame($records, $this->read(implode("\n", $records)."\n"));
        self::assertSame($records, $this->read(str_replace("\n", "\r\n", implode("\n", $records))."\r\n"));
    }

    /** A stray quotation mark does not swallow a file of any size: after a megabyte the record is given up. */
    public function testAStrayQuotationMarkEnds(): void
    {
        $read = $this->read("a,\"b\n".str_repeat("0123456789,0123456789\n", 200000));
        self::assertGreaterThan(140000, \count($read));
        self::assertSame('0123456789,0123456789', end($read));
    }

    /** @return list<string> */
    private function read(string $text): array
    {
        $stream = fopen('php://memory', 'w+');
        self::assertIsResource($stream);
        fwrite($stream, $text);
        rewind($stream);
        $blocks = new RecordBlocks($stream);
        $records = [];
        while (null !== $block = $blocks->next()) {
            $records = [...$records, ...$block];
        }

        return $records;
    }
}
