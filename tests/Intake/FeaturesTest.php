<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\FeatureWriters;

/**
 * Points of GIS files come in where they lie, whatever system their file says. One mark in seven files; its values in the other systems by
 * cs2cs of PROJ 9.1.1, as in {@see FrameTest}.
 */
final class FeaturesTest extends ApiTestCase
{
    private const E = 493612.345;
    private const N = 6028050.5;

    /** The same mark as the degrees of EPSG:4258, by the inverse of the transverse Mercator projection in PROJ 9.1.1. */
    private const LON = -3.0983938379069;
    private const LAT = 54.4001680462924;

    /** @param array<string, mixed> $meaning */
    private function take(string $name, string $contents, array $meaning = ['heights' => 'ellipsoidal']): void
    {
        $file = $this->bring($name, $contents);
        self::assertSame('points', $file['kind'], $name);
        $this->call('PUT', "/intake/{$file['id']}/meaning", $meaning + ['frame' => $file['meaning']['frame']], 200);
        $this->post("/intake/{$file['id']}/accept");
    }

    public function testOneMarkInSevenFiles(): void
    {
        $json = static fn (string $name, float $x, float $y, string $crs): string => '{"type":"FeatureCollection",'.$crs.'"features":['
            .'{"type":"Feature","properties":{"name":"'.$name.'","code":"PEG"},'
            .'"geometry":{"type":"Point","coordinates":['."$x,$y,221.25]}},"
            .'{"type":"Feature","properties":{},"geometry":{"type":"LineString","coordinates":[[0,0],[1,1]]}}]}';
        $crs = static fn (int $code): string => '"crs":{"type":"name","properties":{"name":"urn:ogc:def:crs:EPSG::'.$code.'"}},';
        $this->take('own.geojson', $json('OWN', self::E, self::N, $crs(25830)));
        $this->take('zone.geojson', $json('ZONE', 882909.05712, 6044104.547, $crs(25829)));
        $this->take('degrees.geojson', $json('DEG', self::LON, self::LAT, ''));
        $this->take('mark.kml', '<kml xmlns="http://www.opengis.net/kml/2.2"><Placemark><name>KML</name><Point><coordinates>'
            .self::LON.','.self::LAT.',221.25</coordinates></Point></Placemark></kml>');
        $this->take('mark.gpx', '<gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1"><wpt lat="'.self::LAT.'" lon="'.self::LON
            .'"><ele>221.25</ele><name>GPX</name></wpt></gpx>');
        $set = new FeatureSet();
        [$set->crs, $set->unit] = ['EPSG:25829', 'metre'];
        $place = [[[[882909.05712, 6044104.547, 221.25]]]];
        $folder = sys_get_temp_dir().'/'.bin2hex(random_bytes(6));
        mkdir($folder);
        $zip = new \ZipArchive();
        $zip->open("$folder/all.zip", \ZipArchive::CREATE);
        foreach (['GPKG' => 'gpkg', 'SHP' => 'shp'] as $name => $ending) {
            $set->features = [new Feature(Feature::POINT, 'marks', $place, ['name' => $name, 'code' => 'PEG'])];
            FeatureWriters::for("$folder/marks.$ending")->write($set, "$folder/marks.$ending");
        }
        $this->take('marks.gpkg', (string) file_get_contents("$folder/marks.gpkg"));
        foreach (['shp', 'shx', 'dbf', 'prj', 'cpg'] as $ending) {
            $zip->addFile("$folder/marks.$ending", "survey/marks.$ending");
        }
        $zip->close();
        $this->take('all.zip', (string) file_get_contents("$folder/all.zip"));
        array_map(unlink(...), glob("$folder/*") ?: []);
        rmdir($folder);

        $points = array_column($this->get('/points')['points'], null, 'name');
        self::assertSame(['OWN', 'ZONE', 'DEG', 'KML', 'GPX', 'GPKG', 'SHP'], array_keys($points));
        foreach ($points as $name => $p) {
            self::assertEqualsWithDelta([self::E, self::N, 221.25], [$p['e'], $p['n'], $p['h']], 2e-4, $name);
        }
        self::assertSame(['PEG', 'PEG', 'PEG', '', '', 'PEG', 'PEG'], array_column($points, 'code'));
    }

    /** A fix says its height above the sea; the sentence with a wrong checksum is not counted, and said. */
    public function testFixesOfAReceiverAndWhatStaysBehind(): void
    {
        $sentence = static function (string $text): string {
            $sum = array_reduce(str_split($text), static fn (int $s, string $c): int => $s ^ \ord($c), 0);

            return \sprintf("\$%s*%02X\r\n", $text, $sum);
        };
        $good = $sentence('GPGGA,120000.00,5424.0100828,N,00305.9036556,W,4,12,0.7,168.33,M,52.92,M,,');
        $bad = str_replace('*', '*0', $sentence('GPGGA,120001.00,5424.0100828,N,00305.9036556,W,4,12,0.7,168.33,M,52.92,M,,'));
        $file = $this->bring('walk.nmea', $good.$bad);
        $preview = $this->get("/intake/{$file['id']}");
        self::assertSame(['points' => 1, 'codes' => 1], $preview['counts']);
        $said = implode("\n", array_column($preview['findings'], 'message'));
        self::assertStringContainsString('1 of its points has no name; it is called after the file', $said);
        self::assertStringContainsString('line 2', $said);
        self::assertArrayNotHasKey('heights', $preview['meaning']['asks']);
    }

    public function testAFileThatHoldsNothingSaysSo(): void
    {
        $file = $this->bring('none.geojson', '{"type":"FeatureCollection","features":[]}');
        self::assertStringContainsString('it holds no points, lines', $this->post("/intake/{$file['id']}/accept", [], 422)['detail']);
    }

    /** A line, an area with a hole and no point, in degrees: a drawing where it lies, layers by code, heights asked about. */
    public function testLinesAndAreasAreADrawing(): void
    {
        $at = static fn (float $east, float $north, float $h): array => [self::LON + $east, self::LAT + $north, $h];
        $ring = static fn (float $r): array => [$at(-$r, -$r, 5), $at($r, -$r, 5), $at($r, $r, 5), $at(-$r, $r, 5), $at(-$r, -$r, 5)];
        $feature = static fn (string $code, string $type, array $places): array => [
            'type' => 'Feature', 'properties' => ['code' => $code], 'geometry' => ['type' => $type, 'coordinates' => $places],
        ];
        $file = $this->bring('plots.geojson', json_encode(['type' => 'FeatureCollection', 'features' => [
            $feature('KERB', 'LineString', [$at(0, 0, 221.25), $at(1e-3, 0, 222)]),
            $feature('PLOT', 'Polygon', [$ring(2e-3), $ring(1e-3)]),
        ]], \JSON_THROW_ON_ERROR));
        self::assertSame('design', $file['kind']);
        $preview = $this->get("/intake/{$file['id']}");
        self::assertSame(['lines' => 3, 'layers' => 2], $preview['counts']);
        self::assertArrayHasKey('heights', array_column($preview['meaning']['asks'], 'text', 'key'));
        self::assertStringContainsString('answer first', $this->post("/intake/{$file['id']}/accept", [], 422)['detail']);
        $meaning = ['heights' => 'ellipsoidal', 'frame' => $preview['meaning']['frame']];
        $this->call('PUT', "/intake/{$file['id']}/meaning", $meaning, 200);
        $this->post("/intake/{$file['id']}/accept");

        self::assertSame([], $this->get('/points')['points']);
        $drawing = $this->get("/designs/{$file['id']}");
        self::assertSame(['KERB', 'PLOT'], $drawing['layers']);
        self::assertSame([0, 1, 1], $drawing['lineLayer']);
        self::assertSame([2, 5, 5], array_map(\count(...), $drawing['lines']));
        $start = $drawing['lines'][0][0];
        $xyz = [$drawing['x'][$start], $drawing['y'][$start], $drawing['z'][$start]];
        self::assertEqualsWithDelta([self::E, self::N, 221.25], $xyz, 2e-4);
    }

    /** Points are points, lines of the same file a drawing beside them; both follow the project to another system. */
    public function testPointsAndLinesOfOneFileStayTogether(): void
    {
        $place = '[882909.05712,6044104.547]';
        $json = '{"type":"FeatureCollection","crs":{"type":"name","properties":{"name":"urn:ogc:def:crs:EPSG::25829"}},"features":['
            .'{"type":"Feature","properties":{"name":"P"},"geometry":{"type":"Point","coordinates":'.$place.'}},'
            .'{"type":"Feature","properties":{},"geometry":{"type":"LineString","coordinates":['.$place.',[882919,6044104]]}}]}';
        $this->take('both.geojson', $json, []);
        $file = $this->get('/intake')['files'][0] ?? self::fail('no file');
        $where = function () use ($file): array {
            $d = $this->get("/designs/{$file['id']}");

            return [[$d['x'][0], $d['y'][0], $d['z'][0]], $this->get('/points')['points'][0]];
        };
        [$start, $p] = $where();
        self::assertEqualsWithDelta([self::E, self::N, 0.0], $start, 2e-4);
        self::assertEqualsWithDelta([$p['e'], $p['n']], [$start[0], $start[1]], 1e-9);
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal', 'geoid' => ''], 200);
        [$start, $p] = $where();
        self::assertEqualsWithDelta([882909.05712, 6044104.547, 0.0], $start, 1e-6);
        self::assertEqualsWithDelta([$p['e'], $p['n']], [$start[0], $start[1]], 1e-6);
    }
}
