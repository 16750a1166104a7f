<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Mensura\Exchange\CoordinateTable\TransformTable;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\Operation\RouteSettings;
use Mensura\Tests\Reference\Systems;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Tables of coordinates: what passes, what is computed, and what is said of bad rows. Values by cs2cs of PROJ 9.1.1. */
final class TransformTableTest extends TestCase
{
    private TransformTable $table;

    public function testOtherColumnsPassAsTheyAre(): void
    {
        $out = $this->run_(
            'EPSG:25830',
            'EPSG:25829',
            "id,e,n,h,\"a, remark\"\nA,493612.345,6028050.5,221.25,\"he said \"\"no\"\"\"\nB,493612.345,6028050.5,221.25,\n",
        );
        self::assertMatchesRegularExpression(
            '/^id,e,n,h,"a, remark"\nA,882909\.0571\d\d,6044104\.5470\d\d,221\.25,"he said '
                .'""no"""\nB,882909\.0571\d\d,6044104\.5470\d\d,221\.25,\n$/',
            $out,
        );
        self::assertSame(2, $this->table->rows());
        self::assertTrue($this->table->heightsPassed(), 'Neither system has a height axis.');
        self::assertSame(2, $this->table->outsideArea());
    }

    /** @return iterable<string, array{string}> the same place in other clothes */
    public static function clothes(): iterable
    {
        yield 'semicolons' => ["e;n\n493612.345;6028050.5\n"];
        yield 'tabs' => ["e\tn\n493612.345\t6028050.5\n"];
        yield 'quoted' => ["\"e\",\"n\"\n\"493612.345\",\"6028050.5\"\n"];
        yield 'blanks' => ["e,n\n 493612.345 , 6028050.5\n"];
        yield 'Windows' => ["e,n\r\n493612.345,6028050.5\r\n"];
        yield 'no last end of line' => ["e,n\n493612.345,6028050.5"];
        yield 'capitals' => ["E,N\n493612.345,6028050.5\n"];
        yield 'remarks' => ["e,n\n# measured in spring\n493612.345,6028050.5\n"];
    }

    #[DataProvider('clothes')]
    public function testForms(string $csv): void
    {
        self::assertStringContainsString('54.40016804', $this->run_('EPSG:25830', 'EPSG:4258', $csv));
        self::assertSame(1, $this->table->rows());
    }

    public function testLatitudesTakeThePlaceOfEastings(): void
    {
        $out = $this->run_('EPSG:25830', 'EPSG:4258', "n,code,e\n6028050.5,X,493612.345\n");
        self::assertMatchesRegularExpression(
            '/^lat,code,lon\n54\.40016804\d*,X,-3\.09839383\d*\n$/', $out, 'Latitude first, where the pair stood.',
        );
        $back = $this->run_('EPSG:4258', 'EPSG:25830', "lon,lat\n-3.098393838,54.400168046\n");
        self::assertMatchesRegularExpression('/^e,n\n493612\.34(499|500)\d*,6028050\.(4999|5000)\d*\n$/', $back);
    }

    public function testFeetAreFeet(): void
    {
        $out = $this->run_('EPSG:26910', 'EPSG:2225', "e,n\n543000,4500000\n");
        self::assertMatchesRegularExpression('/^e,n\n6425323\.4328\d\d,2120357\.1114\d\d\n$/', $out);
        self::assertMatchesRegularExpression(
            '/^e,n\n(543000\.0000|542999\.9999)\d\d,/',
            $this->run_('EPSG:2225', 'EPSG:26910', "e,n\n6425323.432887,2120357.111402\n"),
        );
    }

    public function testGeocentricNeedsHeights(): void
    {
        $out = $this->run_('EPSG:4979', 'EPSG:4978', "lat,lon,h\n54.4,-3.1,230.5\n");
        self::assertMatchesRegularExpression('/^x,y,z\n3715792\.53\d+,-201240\.13\d+,5162975\.55\d+\n$/', $out);
        $this->expectExceptionMessageMatches('/is geocentric and needs heights: the header has no column h/');
        $this->run_('EPSG:4979', 'EPSG:4978', "lat,lon\n54.4,-3.1\n");
    }

    public function testGeoidHeights(): void
    {
        $out = $this->run_('EPSG:25830+EPSG:5773', 'EPSG:4937', "e,n,h\n493612.345,6028050.5,100\n");
        self::assertMatchesRegularExpression('/,152\.92\d+\n$/', $out);
        self::assertFalse($this->table->heightsPassed());
    }

    public function testWestAndSouthColumnsAreTheNativeAxes(): void
    {
        $out = $this->run_('EPSG:4156', 'EPSG:2065', "lat,lon\n50,15\n", native: true, fallBack: true);
        self::assertStringStartsWith("s,w\n", strtr($out, ['w,s' => 's,w']));
        $plain = $this->run_('EPSG:4156', 'EPSG:2065', "lat,lon\n50,15\n", fallBack: true);
        self::assertStringStartsWith("e,n\n-", $plain);
    }

    /** @return iterable<string, array{string, string, string, string}> from, to, table, message */
    public static function faults(): iterable
    {
        yield 'empty' => ['EPSG:4258', 'EPSG:25830', '', '/line 1/'];
        yield 'no columns' => ['EPSG:25830', 'EPSG:4258', "x,y\n1,2\n", '/line 1: .*needs the columns e,n; the header has x,y/'];
        yield 'twice' => ['EPSG:25830', 'EPSG:4258', "e,n,e\n1,2,3\n", '/line 1: the column e is there twice/'];
        yield 'in the way' => [
            'EPSG:25830',
            'EPSG:4258',
            "e,n,lat\n1,2,3\n",
            '/line 1: the result needs a column lat, but the file has another of that name/',
        ];
        yield 'a word' => ['EPSG:25830', 'EPSG:4258', "e,n\n1,2\n3,north\n", '/line 3: "north" in column n is not a number/'];
        yield 'cut off' => ['EPSG:25830', 'EPSG:4258', "id,e,n\na,1,2\nb,1\n", '/line 3: has 2 columns where the header has 3/'];
        yield 'latitude 91' => ['EPSG:4258', 'EPSG:25830', "lat,lon\n91,0\n", '/line 2: latitude 91 is not between -90 and 90 degrees/'];
        yield 'exchanged' => ['EPSG:4258', 'EPSG:25830', "lat,lon\n151.2,-33.9\n", '/are lat and lon swapped\?/'];
        yield 'longitude' => ['EPSG:4258', 'EPSG:25830', "lat,lon\n50,400\n", '/line 2: longitude 400 is not between -360 and 360/'];
        yield 'a bad height' => [
            'EPSG:25830+EPSG:5773', 'EPSG:4937', "e,n,h\n493612,6028050,high\n",
            '/line 2: "high" in column h is not a number/',
        ];
        yield 'an open quotation mark' => ['EPSG:25830', 'EPSG:4258', "e,n,r\n493612,6028050,\"open\n", '/a quotation mark is not closed/'];
        yield 'beyond the projection' => ['EPSG:4258', 'EPSG:25830', "lat,lon\n10,177\n", '/line 2/'];
    }

    #[DataProvider('faults')]
    public function testFaultsEndTheRunAndNameTheLine(string $from, string $to, string $csv, string $message): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches($message);
        $this->run_($from, $to, $csv);
    }

    public function testBadRowsAreLeftOutWhenThatIsAsked(): void
    {
        $said = [];
        $rows = "id,lat,lon\na,54.4,-3.1\nb,91,0\nc,x,0\nd,54.5,-3.1\n";
        $out = $this->run_('EPSG:4258', 'EPSG:25830', $rows, skipBad: true, onBad: static function (
            int $line,
            string $reason,
        ) use (&$said): void {
            $said[$line] = $reason;
        });
        self::assertSame(['id', 'a', 'd'], array_map(static fn (string $l): string => explode(',', $l)[0], explode("\n", trim($out))));
        self::assertSame([3, 4], array_keys($said));
        self::assertSame(2, $this->table->rows());
        self::assertCount(2, $this->table->bad());
    }

    public function testALineBreakInsideQuotesBelongsToItsCell(): void
    {
        $out = $this->run_('EPSG:25830', 'EPSG:25829', "id,e,n\n\"a\nb\",493612.345,6028050.5\nlast,493612.345,6028050.5\n");
        self::assertStringContainsString("\"a\nb\",882909.0571", $out);
        self::assertSame(2, $this->table->rows());
    }

    /** @param ?\Closure(int, string): void $onBad */
    private function run_(
        string $from,
        string $to,
        string $csv,
        bool $native = false,
        bool $skipBad = false,
        bool $fallBack = false,
        ?\Closure $onBad = null,
    ): string {
        $route = (new RouteFinder(Systems::registry(), GridFiles::installed()))->route(
            Systems::registry()->system($from), Systems::registry()->system($to),
            new RouteSettings(fallBack: $fallBack),
        );
        $this->table = new TransformTable($route, $native, $skipBad);
        $in = fopen('php://memory', 'r+');
        $out = fopen('php://memory', 'r+');
        self::assertIsResource($in);
        self::assertIsResource($out);
        fwrite($in, $csv);
        rewind($in);
        $this->table->run($in, $out, $onBad);
        rewind($out);

        return (string) stream_get_contents($out);
    }
}
