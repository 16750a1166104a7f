<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange\Look;

use Mensura\Exchange\Look\FileLook;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Files as GDAL 3.6.2 and ezdxf write them (fixtures/look/make.py), held against what those libraries read back; and small ones
 * written here after the published layouts.
 */
final class FileLookTest extends TestCase
{
    private const FIXTURES = __DIR__.'/../../fixtures/look/';
    private const TREES = [493100.25, 6028050.5, 221.0, 493181.25, 6028094.0, 224.0];

    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/mensura-look-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        array_map('unlink', glob($this->folder.'/*') ?: []);
        rmdir($this->folder);
    }

    public function testWhatGdalWrote(): void
    {
        foreach (['trees.shp' => 'shapefile', 'trees.geojson' => 'geojson'] as $file => $kind) {
            $look = FileLook::of(self::FIXTURES.$file, $file)->toArray();
            $facts = self::of($look, 'kind', 'points', 'lines', 'crs', 'unit', 'warnings');
            self::assertSame([$kind, 7, 0, 'EPSG:25830', 'metre', []], $facts);
            self::assertEqualsWithDelta(self::TREES, $look['extent'], 1e-9);
            self::assertSame(['name', 'code'], $look['attributes']);
        }
        $package = FileLook::of(self::FIXTURES.'site.gpkg', 'site.gpkg')->toArray();
        self::assertSame([7, 2, 1, 'EPSG:25830'], self::of($package, 'points', 'lines', 'polygons', 'crs'));
        self::assertSame(['trees' => 7, 'kerbs' => 2, 'lots' => 1], array_column($package['layers'], 'count', 'name'));
        self::assertSame(['name', 'code', 'width', 'lot'], $package['attributes']);
        self::assertEqualsWithDelta([493090.0, 6028000.0, 220.0, 493260.0, 6028140.0, 226.0], $package['extent'], 1e-9);
        foreach (['site.kml' => 'kml', 'walk.gpx' => 'gpx'] as $file => $kind) {
            $look = FileLook::of(self::FIXTURES.$file, $file)->toArray();
            self::assertSame([$kind, 7, 'EPSG:4326', 'degree'], self::of($look, 'kind', 'points', 'crs', 'unit'));
            $box = self::expected()[$file];
            self::assertEqualsWithDelta($box, [$look['extent'][0], $look['extent'][1], $look['extent'][3], $look['extent'][4]], 1e-6);
        }
        $tif = FileLook::of(self::FIXTURES.'dem-lzw.tif', 'dem-lzw.tif')->toArray();
        ['least' => $least, 'greatest' => $greatest, 'corners' => $corners] = self::expected()['tif'];
        self::assertSame(['geotiff', 9 * 12 - 2, 'EPSG:25830'], self::of($tif, 'kind', 'points', 'crs'));
        self::assertEqualsWithDelta([...$corners['lowerLeft'], $least, ...$corners['upperRight'], $greatest], $tif['extent'], 1e-6);
    }

    /** Nothing is written beside a database that is looked at. */
    public function testNothingIsWritten(): void
    {
        copy(self::FIXTURES.'site.gpkg', $this->folder.'/site.gpkg');
        $before = hash_file('sha256', $this->folder.'/site.gpkg');
        FileLook::of($this->folder.'/site.gpkg', 'site.gpkg');
        self::assertSame([$this->folder.'/site.gpkg'], glob($this->folder.'/*'));
        self::assertSame($before, hash_file('sha256', $this->folder.'/site.gpkg'));
    }

    /** Blocks turned, scaled, within blocks and in columns; bulges, a spline, an ellipse, a mirrored circle. */
    public function testADrawingOfEzdxf(): void
    {
        $look = FileLook::of(self::FIXTURES.'plan.dxf', 'plan.dxf')->toArray();
        self::assertSame([4, 4, 3, 1, 'metre', ['NUMBER']], self::of($look, 'points', 'lines', 'polygons', 'faces', 'unit', 'attributes'));
        self::assertSame(
            ['MARKS' => 4, 'CURVES' => 5, 'Gräben' => 1, 'FACES' => 1, 'TEXTS' => 1, 'AREAS' => 1],
            array_column($look['layers'], 'count', 'name'),
        );
        // ezdxf draws curves as chords of some millimetres of sag; its ellipse reaches 2 mm beyond sqrt(a² cos² + b² sin²).
        self::assertEqualsWithDelta(self::expected()['dxf']['extent'], $look['extent'], 0.003);
        self::assertEqualsWithDelta(-20.0 - sqrt(144.0 + 4.0), $look['extent'][0], 1e-9);
    }

    /** @return iterable<string, array{string, string, array<string, mixed>}> contents, kind, what is in it */
    public static function texts(): iterable
    {
        $at = [100.5, 200.25, 7.5, 101.0, 201.0, 8.0];
        yield 'a table' => [
            "id,e,n,h,code\nP1,100.5,200.25,7.5,A\nP2,101,201,8,B\n",
            'csv', ['points' => 2, 'attributes' => ['id', 'code'], 'extent' => $at],
        ];
        yield 'decimal commas' => [
            "Punkt;Rechtswert;Hochwert;Höhe\nP1;100,5;200,25;7,5\nP2;101;201;8\n",
            'csv', ['points' => 2, 'extent' => $at],
        ];
        yield 'titles before the heading' => [
            "Site B\nmeasured in May\nid\te\tn\th\nP1\t100.5\t200.25\t7.5\nP2\t101\t201\t8\n",
            'csv', ['points' => 2, 'extent' => $at],
        ];
        yield 'Latin-1, pipes, old line ends' => [
            "Name|E|N|H|Art\rP1|100.5|200.25|7.5|B\xE4ume\rP2|101|201|8|Z\rP3|101|201|8|Z\r",
            'csv', ['points' => 3, 'extent' => $at],
        ];
        yield 'UTF-16' => [
            "\xFE\xFF".mb_convert_encoding("id;e;n;h\r\nÄ1;100.5;200.25;7.5\r\nÄ2;101;201;8\r\n", 'UTF-16BE', 'UTF-8'),
            'csv', ['points' => 2, 'extent' => $at],
        ];
        yield 'no heading' => ["P1,100.5,200.25,7.5,A\nP2,101,201,8,B\n", 'csv', ['points' => 2, 'extent' => $at]];
        yield 'degrees' => [
            "id,lat,lon\nA,54.4,-3.1\nB,54.5,-3.2\n",
            'csv', ['points' => 2, 'unit' => 'degree', 'extent' => [-3.2, 54.4, null, -3.1, 54.5, null]],
        ];
        yield 'numbers alone' => [
            "# a remark\n// another\n;\n100.5 200.25 7.5\n101 201 8\n",
            'xyz', ['points' => 2, 'unit' => null, 'extent' => $at],
        ];
        yield 'numbers with commas' => ["100.5,200.25,7.5,255\n101,201,8,255\n", 'xyz', ['points' => 2, 'extent' => $at]];
        yield 'a poem' => ["The quick brown fox\njumps\n", 'unknown', ['points' => 0, 'extent' => null]];
        yield 'other JSON' => ['{"a": [1, 2]}', 'unknown', ['extent' => null]];
        yield 'other XML' => ['<?xml version="1.0"?><plan><p/></plan>', 'unknown', []];
        yield 'a geometry' => [
            '{"type":"MultiPoint","coordinates":[[1,2],[3,4,5]]}',
            'geojson', ['points' => 1, 'crs' => 'EPSG:4326', 'extent' => [1.0, 2.0, 5.0, 3.0, 4.0, 5.0]],
        ];
        yield 'nothing in its place' => [
            '{"type":"FeatureCollection","name":"n","features":[{"type":"Feature","geometry":null,"properties":{"a":1}}]}', 'geojson',
            ['points' => 0, 'layers' => [['name' => 'n', 'count' => 1]], 'attributes' => ['a'], 'extent' => null],
        ];
        $wkt = 'PROJCRS["WGS 84 / UTM zone 31N",BASEGEOGCRS["WGS 84",DATUM["World Geodetic System 1984",ELLIPSOID["WGS 84",6378137,'
            .'298.257223563,LENGTHUNIT["metre",1]]]],CONVERSION["UTM zone 31N",METHOD["Transverse Mercator"],PARAMETER["Longitude of '
            .'natural origin",3,ANGLEUNIT["degree",0.0174532925199433]]],CS[Cartesian,2],AXIS["e",east],AXIS["n",north],'
            .'LENGTHUNIT["metre",1],ID["EPSG",32631]]';
        yield 'WKT of a system' => [$wkt, 'wkt', ['crs' => 'EPSG:32631', 'unit' => 'metre']];
        $fix = 'GPGGA,120000,5424.0000,N,00306.0000,W,1,08,1.0,52.5,M,47.0,M,,';
        $none = 'GPGGA,120001,5424.0000,N,00306.0000,W,0,00,,,M,,M,,';
        yield 'sentences' => [
            '$'.$fix.'*'.self::sum($fix)."\r\n$".$none.'*'.self::sum($none)."\r\n$".$fix."*00\r\n", 'nmea',
            ['points' => 1, 'extent' => [-3.1, 54.4, 52.5, -3.1, 54.4, 52.5], 'warned' => 'checksum'],
        ];
        $xml = '<LandXML xmlns="http://www.landxml.org/schema/LandXML-1.2"><Units><Imperial linearUnit="USSurveyFoot"/></Units>'
            .'<CgPoints><CgPoint name="1">200.25 100.5 7.5</CgPoint><CgPoint name="2">201 101 8</CgPoint></CgPoints>'
            .'<Parcels><Parcel name="p"/></Parcels><Surfaces><Surface name="S"><Definition><Pnts><P id="1">200.5 100.5 7.5</P>'
            .'<P id="2">200.5 101 7.5</P><P id="3">201 101 8</P></Pnts><Faces><F>1 2 3</F><F i="1">1 2 3</F></Faces></Definition>'
            .'</Surface></Surfaces></LandXML>';
        yield 'LandXML' => [$xml, 'landxml', [
            'points' => 2, 'polygons' => 1, 'faces' => 1, 'surfaces' => [['name' => 'S', 'points' => 3, 'triangles' => 1]],
            'unit' => 'US survey foot', 'extent' => $at,
        ]];
    }

    /** @param array<string, mixed> $expected */
    #[DataProvider('texts')]
    public function testTexts(string $contents, string $kind, array $expected): void
    {
        $look = $this->look($contents);
        self::assertSame($kind, $look['kind'], implode(', ', $look['warnings']));
        if (isset($expected['warned'])) {
            self::assertStringContainsString($expected['warned'], implode(', ', $look['warnings']));
            unset($expected['warned']);
        }
        foreach ($expected as $key => $value) {
            self::assertEqualsWithDelta($value, $look[$key], 1e-9, $key);
        }
    }

    /** LAS 1.2, format 0 (ASPRS LAS specification, tables 3 and 7): two points, their system in a record of GeoTIFF keys. */
    public function testPointsOfAScanner(): void
    {
        $look = $this->look(self::las(2));
        self::assertSame(['las', 2, 'EPSG:25830', []], self::of($look, 'kind', 'points', 'crs', 'warnings'));
        self::assertEqualsWithDelta([493000.0, 6028000.0, 220.0, 493000.5, 6028001.0, 221.5], $look['extent'], 1e-9);
        $this->expectExceptionMessage('its header says 4000000000 points');
        $this->look(self::las(4_000_000_000));
    }

    /** A grid of geoid heights (GTX: four doubles, two counts, floats by rows from the south). */
    public function testAGrid(): void
    {
        $gtx = pack('E4N2', 54.0, -3.5, 0.25, 0.5, 2, 3).pack('G6', 1.0, 2.0, 3.0, 4.0, 5.0, 6.0);
        $look = $this->look($gtx);
        self::assertSame(['gtx', 6, 'degree'], self::of($look, 'kind', 'points', 'unit'));
        self::assertEqualsWithDelta([-3.5, 54.0, null, -2.5, 54.25, null], $look['extent'], 1e-12);
    }

    /** @return iterable<string, array{string, string}> */
    public static function refused(): iterable
    {
        yield 'JSON with NaN' => ['{"type":"Point","coordinates":[NaN,1]}', 'is no JSON'];
        yield 'JSON cut off' => ['{"type":"FeatureCollection","features":[{"type":', 'is no JSON'];
        yield 'JSON in Latin-1' => ["{\"type\":\"Point\",\"coordinates\":[1,2],\"name\":\"B\xE4ume\"}", 'another encoding than Unicode'];
        yield 'XML cut off' => ['<gpx><wpt lat="1" lon="2">', 'is no complete XML'];
        yield 'XML with entities' => ['<!DOCTYPE kml [<!ENTITY a "b">]><kml/>', 'document type declaration'];
        yield 'DXF cut off' => ["0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n1\n20\n", 'is cut off'];
        $insert = "0\nINSERT\n2\nA\n10\n1\n20\n1\n";
        yield 'a block within itself' => [
            "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nA\n10\n0\n20\n0\n{$insert}0\nENDBLK\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n"
            ."{$insert}0\nENDSEC\n0\nEOF\n", 'holds itself',
        ];
        yield 'a database cut off' => [substr((string) file_get_contents(self::FIXTURES.'site.gpkg'), 0, 60000), 'it is cut off'];
        yield 'a TIFF cut off' => [substr((string) file_get_contents(self::FIXTURES.'dem-lzw.tif'), 0, 400), 'cut short'];
    }

    #[DataProvider('refused')]
    public function testWhatCannotBeLookedAt(string $contents, string $words): void
    {
        try {
            $this->look($contents);
            self::fail('It was taken.');
        } catch (UnusableInput $e) {
            self::assertStringContainsString($words, $e->getMessage());
            self::assertStringContainsString('a.file', $e->getMessage());
        }
    }

    /** A shapefile whose records lie keeps what is sound before them. */
    public function testLyingLengths(): void
    {
        $shp = (string) file_get_contents(self::FIXTURES.'trees.shp');
        $look = $this->look(substr($shp, 0, 230));
        self::assertSame(3, $look['points']);
        self::assertStringContainsString('it is cut off', implode(' ', $look['warnings']));
        $shp[100 + 36 + 7] = "\x7F"; // the second record says it is longer than the file
        $look = $this->look($shp);
        self::assertSame(1, $look['points']);
    }

    /** A shapefile within a zip, and one file in a zip that unpacks to far more than it is. */
    public function testZips(): void
    {
        $zip = new \ZipArchive();
        $zip->open($this->folder.'/trees.zip', \ZipArchive::CREATE);
        foreach (['shp', 'dbf', 'prj', 'cpg'] as $ending) {
            $zip->addFile(self::FIXTURES."trees.$ending", "data/trees.$ending");
        }
        $zip->close();
        $look = FileLook::of($this->folder.'/trees.zip', 'trees.zip')->toArray();
        self::assertSame(['shapefile', 7, 'EPSG:25830', []], self::of($look, 'kind', 'points', 'crs', 'warnings'));
        $zip->open($this->folder.'/bomb.zip', \ZipArchive::CREATE);
        $zip->addFromString('a.shp', str_repeat("\0", 50_000_000));
        $zip->close();
        $this->expectExceptionMessage('too large unpacked');
        FileLook::of($this->folder.'/bomb.zip', 'bomb.zip');
    }

    /** A large collection is taken apart feature by feature, with the same answer. */
    public function testALargeCollectionInLittleMemory(): void
    {
        $path = $this->folder.'/large.geojson';
        $file = fopen($path, 'w') ?: throw new \RuntimeException('No file.');
        fwrite($file, '{"type":"FeatureCollection","crs":{"type":"name","properties":{"name":"EPSG:25830"}},"features":[');
        $text = str_repeat('a "quoted\\\\" {brace}', 20);
        for ($i = 0; $i < 60_000; ++$i) {
            $name = json_encode($text, \JSON_THROW_ON_ERROR);
            $geometry = "{\"type\":\"Point\",\"coordinates\":[$i,1.5]}";
            fwrite($file, ($i > 0 ? ',' : '')."{\"type\":\"Feature\",\"properties\":{\"t\":$name},\"geometry\":$geometry}\n");
        }
        fwrite($file, ']}');
        fclose($file);
        self::assertGreaterThan(20_000_000, filesize($path));
        $before = memory_get_peak_usage();
        $look = FileLook::of($path, 'large.geojson')->toArray();
        self::assertSame(['geojson', 60_000, 'EPSG:25830'], self::of($look, 'kind', 'points', 'crs'));
        self::assertEqualsWithDelta([0.0, 1.5, null, 59999.0, 1.5, null], $look['extent'], 0.0);
        self::assertLessThan(40_000_000, memory_get_peak_usage() - $before);
    }

    /** Whatever a file is made of, it is looked at or refused by name. */
    public function testNoFileBreaksIt(): void
    {
        mt_srand(11);
        foreach (['plan.dxf', 'trees.shp', 'site.gpkg', 'site.kml', 'walk.gpx', 'dem-lzw.tif', 'trees.geojson'] as $file) {
            $bytes = (string) file_get_contents(self::FIXTURES.$file);
            for ($k = 0; $k < 25; ++$k) {
                $broken = $k < 5 ? substr($bytes, 0, intdiv(\strlen($bytes) * $k, 5)) : $bytes;
                for ($j = 0; $j < $k % 6 && '' !== $broken; ++$j) {
                    $broken[mt_rand(0, min(900, \strlen($broken) - 1))] = \chr(mt_rand(0, 255));
                }
                try {
                    self::assertNotFalse(json_encode($this->look($broken)));
                } catch (UnusableInput $e) {
                    self::assertStringContainsString('a.file', $e->getMessage());
                    self::assertTrue(mb_check_encoding($e->getMessage(), 'UTF-8'));
                }
            }
        }
    }

    private static function las(int $count): string
    {
        $keys = pack('v*', 1, 1, 0, 2, 1024, 0, 1, 1, 3072, 0, 1, 25830);
        $vlr = pack('va16vva32', 0, 'LASF_Projection', 34735, \strlen($keys), '').$keys;
        $head = 'LASF'.str_repeat("\0", 20)."\1\2".str_repeat("\0", 64).pack('vvv', 1, 2031, 227)
            .pack('VV', 227 + \strlen($vlr), 1)."\0".pack('v', 20).pack('V', $count)
            .str_repeat("\0", 20).pack('e6', 0.01, 0.01, 0.01, 493000.0, 6028000.0, 0.0)
            .pack('e6', 493000.5, 493000.0, 6028001.0, 6028000.0, 221.5, 220.0);
        $points = pack('V3a8', 0, 0, 22000, '').pack('V3a8', 50, 100, 22150, '');

        return $head.$vlr.$points;
    }

    private static function sum(string $sentence): string
    {
        $sum = 0;
        foreach (str_split($sentence) as $c) {
            $sum ^= \ord($c);
        }

        return \sprintf('%02X', $sum);
    }

    /** @return array<string, mixed> */
    private function look(string $contents): array
    {
        $path = $this->folder.'/a.file';
        file_put_contents($path, $contents);

        return FileLook::of($path, 'a.file')->toArray();
    }

    /**
     * @param array<string, mixed> $look
     *
     * @return list<mixed>
     */
    private static function of(array $look, string ...$keys): array
    {
        return array_map(static fn (string $key): mixed => $look[$key], array_values($keys));
    }

    /** @return array<string, mixed> */
    private static function expected(): array
    {
        return json_decode((string) file_get_contents(self::FIXTURES.'expected.json'), true, 16, \JSON_THROW_ON_ERROR);
    }
}
