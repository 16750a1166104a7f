<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange;

use Batch\Verbs;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The verb convert: what goes in comes out again, and what a kind of file cannot hold is said. */
final class ConvertTest extends TestCase
{
    /** Names that separators, mark-up, encodings and control codes of formats could damage. */
    private const NAMES = ['A1', '#7', 'a,b;c', '"q"', "l'é", '<&>', '%%d', 'Ü ß', '名前', '007', 'x\\y', '(1)'];

    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/convert-'.bin2hex(random_bytes(6));
        mkdir($this->folder);
        $rows = "name,code,e,n,h\n";
        foreach (self::NAMES as $i => $name) {
            $quoted = '"'.str_replace('"', '""', $name).'"';
            $rows .= \sprintf("%s,K%d,%.4f,%.3f,%.3f\n", $quoted, $i % 3, 493612.345 + 1.1111 * $i, 6028050.5 + $i, 200.125 + $i);
        }
        file_put_contents("$this->folder/in.csv", $rows);
    }

    protected function tearDown(): void
    {
        array_map(unlink(...), glob("$this->folder/*") ?: []);
        rmdir($this->folder);
    }

    /** @return array{int, array<string, mixed>, string} exit code, document, messages */
    private function convert(string ...$arguments): array
    {
        $out = fopen('php://memory', 'w+');
        $err = fopen('php://memory', 'w+');
        self::assertIsResource($out);
        self::assertIsResource($err);
        $code = (new Verbs($out, $err))->call(['convert', ...array_values($arguments)]);
        rewind($out);
        rewind($err);

        return [$code, (array) json_decode((string) stream_get_contents($out), true), (string) stream_get_contents($err)];
    }

    /** @return list<array{string, string, string, string}> rows of a table: name, easting, northing, height */
    private static function table(string $path): array
    {
        $rows = array_map(static fn (string $line): array => str_getcsv($line, ',', '"', ''), file($path, \FILE_IGNORE_NEW_LINES) ?: []);

        return array_map(static fn (array $r): array => \array_slice($r, 0, 4), \array_slice($rows, 1));
    }

    /** @return iterable<string, array{string}> */
    public static function formats(): iterable
    {
        foreach (['geojson', 'shp', 'gpkg', 'xml', 'dxf', 'csv', 'kml'] as $ending) {
            yield $ending => [$ending];
        }
    }

    #[DataProvider('formats')]
    public function testNamesAndCoordinatesComeBack(string $ending): void
    {
        [$code, $there, $said] = $this->convert("$this->folder/in.csv", "$this->folder/a.$ending", '--from-crs', 'EPSG:25830');
        self::assertSame(0, $code, $said);
        self::assertSame(\count(self::NAMES), $there['written']['points']);
        self::assertLessThan(1e-6, $there['moved']);
        self::assertStringNotContainsString('name', implode(' ', $there['lost']));
        $back = 'kml' === $ending ? ['--to-crs', 'EPSG:25830'] : [];
        [$code, , $said] = $this->convert("$this->folder/a.$ending", "$this->folder/back.csv", ...$back);
        self::assertSame(0, $code, $said);
        $rows = self::table("$this->folder/back.csv");
        self::assertSame(self::NAMES, array_column($rows, 0));
        foreach (self::table("$this->folder/in.csv") as $i => [, , $e, $n]) {
            // Degrees of a KML carry seventeen figures; the way there and back is a projection and its inverse.
            self::assertEqualsWithDelta([(float) $e, (float) $n], [(float) $rows[$i][1], (float) $rows[$i][2]], 1e-7);
        }
    }

    /** GDAL shares nothing with ours: it reads the same names, places and system. */
    #[DataProvider('gdal')]
    public function testAnotherReaderReadsTheSame(string $ending, string $key): void
    {
        if (null === shell_exec('command -v ogr2ogr')) {
            self::markTestSkipped('bin/mensura test installs GDAL.');
        }
        $file = "$this->folder/a.$ending";
        $this->convert("$this->folder/in.csv", $file, '--from-crs', 'EPSG:25830');
        $json = (string) shell_exec('ogr2ogr -f GeoJSON -lco COORDINATE_PRECISION=10 /vsistdout/ '.escapeshellarg($file).' 2>/dev/null');
        $read = json_decode($json, true)['features'] ?? [];
        self::assertSame(self::NAMES, array_map(static fn (array $f): string => (string) $f['properties'][$key], $read));
        if ('kml' !== $ending) {
            foreach (self::table("$this->folder/in.csv") as $i => [, , $e, $n]) {
                self::assertEqualsWithDelta([(float) $e, (float) $n], \array_slice($read[$i]['geometry']['coordinates'], 0, 2), 1e-9);
            }
        }
        $about = (string) shell_exec('ogrinfo -ro -al -so '.escapeshellarg($file));
        self::assertStringContainsString('kml' === $ending ? 'ID["EPSG",4326]' : 'ID["EPSG",25830]', $about);
    }

    /** @return iterable<string, array{string, string}> */
    public static function gdal(): iterable
    {
        yield 'shapefile' => ['shp', 'name'];
        yield 'GeoPackage' => ['gpkg', 'name'];
        yield 'GeoJSON' => ['geojson', 'name'];
        yield 'KML' => ['kml', 'Name'];
    }

    /** @return iterable<string, array{string, float}> */
    public static function clouds(): iterable
    {
        yield 'xyz' => ['xyz', 0.0];
        yield 'ply' => ['ply', 0.0];
        yield 'e57' => ['e57', 0.0];
        yield 'las, to a tenth of a millimetre' => ['las', 1e-4];
    }

    #[DataProvider('clouds')]
    public function testCloudsKeepTheirPlacesAndSayThatNamesAreLost(string $ending, float $within): void
    {
        [$code, $there, $said] = $this->convert("$this->folder/in.csv", "$this->folder/a.$ending", '--from-crs', 'EPSG:25830');
        self::assertSame(0, $code, $said);
        self::assertSame($ending, $there['written']['kind']);
        self::assertSame(\count(self::NAMES), $there['written']['points']);
        self::assertLessThanOrEqual($within, $there['moved']);
        self::assertStringContainsString('the properties name, code', implode("\n", $there['lost']));
    }

    /** Values by cs2cs of PROJ 9.1.1, as in the tests of a project's reference. */
    public function testCoordinatesAreBroughtToAnotherSystem(): void
    {
        [$code, $there] = $this->convert(
            "$this->folder/in.csv", "$this->folder/a.gpkg", '--from-crs', 'EPSG:25830', '--to-crs', 'EPSG:25829',
        );
        self::assertSame(0, $code);
        self::assertSame('EPSG:25829', $there['written']['crs']);
        $this->convert("$this->folder/a.gpkg", "$this->folder/back.csv");
        [, $e, $n] = self::table("$this->folder/back.csv")[0];
        self::assertEqualsWithDelta([882909.05712, 6044104.547], [(float) $e, (float) $n], 1e-4);
    }

    public function testFieldNamesOfShapefilesAreShortenedApartAndSaid(): void
    {
        $rows = "name,measured_by_whom,measured_by_what,e,n\nA,me,tape,1,2\nB,you,rod,3,4\n";
        file_put_contents("$this->folder/long.csv", $rows);
        [, $there] = $this->convert("$this->folder/long.csv", "$this->folder/a.shp");
        self::assertSame(['name', 'measured_b', 'measured_2'], $there['written']['attributes']);
        self::assertStringContainsString('measured_by_what, written as measured_2', implode("\n", $there['lost']));
        foreach (['shx', 'dbf', 'prj', 'cpg'] as $ending) {
            self::assertFileExists("$this->folder/a.$ending");
        }
    }

    /** A ring with a hole and two rings apart: what the ring directions of shapefiles carry. */
    public function testPolygonsKeepTheirHolesAndParts(): void
    {
        $square = static fn (float $x, float $y, float $s): array => [[$x, $y], [$x + $s, $y], [$x + $s, $y + $s], [$x, $y + $s], [$x, $y]];
        $shape = ['type' => 'MultiPolygon', 'coordinates' => [
            [$square(0.0, 0.0, 10.0), array_reverse($square(2.0, 2.0, 3.0))], [$square(20.0, 0.0, 5.0)],
        ]];
        $lot = ['type' => 'Feature', 'properties' => ['lot' => 7, 'share' => 0.25], 'geometry' => $shape];
        file_put_contents("$this->folder/lots.geojson", json_encode(['type' => 'FeatureCollection', 'features' => [$lot]]));
        foreach (['shp', 'gpkg', 'kml', 'geojson'] as $ending) {
            [$code, $there, $said] = $this->convert("$this->folder/lots.geojson", "$this->folder/a.$ending");
            self::assertSame(0, $code, $said);
            self::assertSame([1, 0.0], [$there['written']['polygons'], $there['moved']], $ending);
            $this->convert("$this->folder/a.$ending", "$this->folder/back.geojson");
            $back = json_decode((string) file_get_contents("$this->folder/back.geojson"), true);
            $geometry = $back['features'][0]['geometry'];
            self::assertSame([2, 1], array_map(\count(...), $geometry['coordinates']), $ending);
        }
        $properties = json_decode((string) file_get_contents("$this->folder/back.geojson"), true)['features'][0]['properties'];
        self::assertSame(['lot' => 7, 'share' => 0.25], $properties);
    }

    public function testWhatCannotBeDoneIsRefusedAndNothingIsLeft(): void
    {
        $in = "$this->folder/in.csv";
        foreach ([
            'is of no kind that is written' => [$in, "$this->folder/a.doc"],
            'LAZ is read only' => [$in, "$this->folder/a.laz"],
            'is no folder that can be written to' => [$in, "$this->folder/nowhere/a.shp"],
            'has no layer "moon"' => [$in, "$this->folder/a.shp", '--layer', 'moon'],
            'does not say which system it is in' => [$in, "$this->folder/a.shp", '--to-crs', 'EPSG:25830'],
            'KML holds longitudes and latitudes' => [$in, "$this->folder/a.kml"],
            'give two files' => [$in],
            'is geocentric' => [$in, "$this->folder/a.shp", '--from-crs', 'EPSG:25830', '--to-crs', 'EPSG:4936'],
            'cannot be read' => ["$this->folder/none.csv", "$this->folder/a.shp"],
        ] as $words => $arguments) {
            [$code, $document, $said] = $this->convert(...$arguments);
            self::assertSame([2, []], [$code, $document], $words);
            self::assertStringContainsString($words, $said);
        }
        self::assertSame([$in], glob("$this->folder/{,.}[!.]*", \GLOB_BRACE));
    }

    /** What is not read is said: a track of KML 2.3 is counted and not read. */
    public function testWhatStaysBehindIsSaid(): void
    {
        file_put_contents("$this->folder/walk.kml", '<kml xmlns="http://www.opengis.net/kml/2.3">'
            .'<Placemark><name>P</name><Point><coordinates>-3,54</coordinates></Point></Placemark>'
            .'<Placemark><Track><coord>-3 54 0</coord><coord>-3.1 54 0</coord></Track></Placemark></kml>');
        [$code, $there] = $this->convert("$this->folder/walk.kml", "$this->folder/walk.gpkg");
        self::assertSame([0, ['not read: 1 lines']], [$code, $there['lost']]);
    }

    /** The same file gives the same bytes, whenever it is converted. */
    public function testTheSameFileGivesTheSameBytes(): void
    {
        touch("$this->folder/in.csv", 1_900_000_000);
        foreach (['csv', 'geojson', 'shp', 'dbf', 'gpkg', 'xml', 'dxf', 'xyz', 'ply', 'las', 'e57'] as $ending) {
            $made = [];
            foreach (['a', 'b'] as $turn) {
                @unlink("$this->folder/same.$ending");
                $written = 'dbf' === $ending ? 'shp' : $ending;
                $this->convert("$this->folder/in.csv", "$this->folder/same.$written", '--from-crs', 'EPSG:25830');
                $made[$turn] = (string) file_get_contents("$this->folder/same.$ending");
            }
            self::assertSame($made['a'], $made['b'], $ending);
        }
        self::assertStringContainsString('date="2030-03-17"', (string) file_get_contents("$this->folder/same.xml"));
    }
}
