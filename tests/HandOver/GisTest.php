<?php

declare(strict_types=1);

namespace App\Tests\HandOver;

use App\Tests\ApiTestCase;
use Demo\SiteLines;
use Symfony\Component\Process\Process;

/** What goes to information systems is read by GDAL, that shares nothing with what wrote it. */
final class GisTest extends ApiTestCase
{
    private string $folder;

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = sys_get_temp_dir().'/gis-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
        $this->acceptDemoFiles();
        $this->accept(SiteLines::FILE, (new SiteLines())->design());
        $this->job('/network/adjust');
        $this->post('/network/accept');
    }

    protected function tearDown(): void
    {
        (new Process(['rm', '-rf', $this->folder]))->run();
        parent::tearDown();
    }

    /**
     * @param array<string, mixed> $set
     *
     * @return array<string, mixed> the export's view
     */
    private function write(array $set): array
    {
        $id = $this->post('/handover/gis', $set)['set'];
        $job = $this->job('/handover', ['kind' => 'gis', 'surfaces' => [$id]]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $sets = array_column($this->get('/handover/gis')['sets'], null, 'id');
        $file = $sets[$id]['files'][0];
        self::assertTrue($file['holds'], json_encode($file['checks'], \JSON_THROW_ON_ERROR));
        file_put_contents("$this->folder/set.zip", $this->download("/handover/{$file['id']}/file"));
        (new Process(['unzip', '-o', '-q', "$this->folder/set.zip", '-d', "$this->folder/{$set['name']}"]))->mustRun();

        return $file;
    }

    private function info(string $path): string
    {
        return (new Process(['ogrinfo', '-ro', '-al', '-so', "$this->folder/$path"]))->mustRun()->getOutput();
    }

    public function testWhatIsKnownWorseStaysOutAndIsCounted(): void
    {
        $points = array_filter($this->get('/points')['points'], static fn (array $p): bool => 'adjusted' === $p['role']);
        $stations = array_column($this->get('/network')['stations'], null, 'name');
        $known = array_filter($points, static fn (array $p): bool => isset($stations[$p['name']]));
        $plan = array_map(static fn (array $p): float => hypot($stations[$p['name']]['sdE'], $stations[$p['name']]['sdN']), $known);
        sort($plan);
        $unknown = \count($points) - \count($known);
        $limit = 0.5 * ($plan[2] + $plan[3]);
        $layers = $this->get('/handover/gis')['layers'];
        $set = [
            'name' => 'fine', 'format' => 'gpkg', 'roles' => ['adjusted'], 'plan' => $limit, 'unknown' => false,
            'attributes' => ['name', 'sd_e'],
            'layers' => array_map(static fn (array $l): array => ['file' => $l['file'], 'layer' => $l['layer']], $layers),
        ];
        $count = $this->post('/handover/gis/count', $set);
        self::assertSame([\count($points), 3, \count($known) - 3, $unknown, 5, 1], array_values($count));
        $file = $this->write($set);
        self::assertStringContainsString(\sprintf('%d points known worse than', \count($known) - 3), $file['leftOut'][0]);
        $seen = $this->info('fine/features.gpkg');
        foreach (['points' => 3, 'lines' => 5, 'areas' => 1] as $layer => $n) {
            self::assertMatchesRegularExpression("/Layer name: $layer\\b.*?Feature Count: $n\\b/s", $seen);
        }
        self::assertStringContainsString('ID["EPSG",25830]', $seen);
        self::assertMatchesRegularExpression('/^name: String/m', $seen);
        self::assertDoesNotMatchRegularExpression('/^(role|code|sd_n):/m', $seen, 'Only what was chosen is said.');
    }

    /** What a file says of the measuring goes along: from a table and from the fixes of a receiver; what was adjusted says so. */
    public function testTimeMethodSatellitesAndPrecisionGoAlong(): void
    {
        $this->accept('rover.csv', <<<'CSV'
            point,easting [m],northing [m],ellipsoidal height [m],code,time,solution,satellites,positions,HRMS [m],VRMS [m]
            R1,493612.345,6028050.5,221.25,PEG,2031-05-02T11:15:00+02:00,fixed,14,10,0.010,0.018
            R2,493613.345,6028050.5,221.25,PEG,yesterday,float,7,1,0.410,0.700
            CSV);
        $sentence = 'GPGGA,120000.00,5424.0100828,N,00305.9036556,W,4,12,0.7,168.33,M,52.92,M,,';
        $sum = array_reduce(str_split($sentence), static fn (int $s, string $c): int => $s ^ \ord($c), 0);
        $this->accept('walk.nmea', \sprintf("\$%s*%02X\r\n", $sentence, $sum));
        $this->write([
            'name' => 'said', 'format' => 'geojson', 'roles' => ['surveyed', 'adjusted'], 'plan' => 0.1, 'unknown' => true, 'system' => '',
            'attributes' => ['name', 'time', 'method', 'satellites', 'sd_e', 'sd_h'],
        ]);
        $json = json_decode((string) file_get_contents("$this->folder/said/features.geojson"), true, 64, \JSON_THROW_ON_ERROR);
        $said = array_column(array_column($json['features'], 'properties'), null, 'name');
        $first = [
            'name' => 'R1', 'sd_e' => 0.01 / \M_SQRT2, 'sd_h' => 0.018, 'time' => '2031-05-02T09:15:00Z', 'method' => 'fixed',
            'satellites' => 14,
        ];
        self::assertEqualsWithDelta($first, $said['R1'], 1e-12);
        self::assertArrayNotHasKey('R2', $said, 'It is known to 0.41 m.');
        self::assertSame(['RTK fixed', 12], [$said['walk-1']['method'], $said['walk-1']['satellites']]);
        $adjusted = array_filter($this->get('/points')['points'], static fn (array $p): bool => 'adjusted' === $p['source']);
        $named = array_intersect_key($said, array_column($adjusted, null, 'name'));
        self::assertNotSame([], $named);
        self::assertSame(['network adjustment'], array_values(array_unique(array_column($named, 'method'))));
    }

    public function testAnotherSystemAndShapefilesWithTheirSystem(): void
    {
        $file = array_column($this->get('/handover/gis')['layers'], 'file', 'layer')['KERB'];
        $this->write([
            'name' => 'west', 'format' => 'shp', 'roles' => ['control', 'adjusted'], 'system' => 'EPSG:25829',
            'layers' => [['file' => $file, 'layer' => 'KERB'], ['file' => $file, 'layer' => 'WORKS-LIMIT']],
        ]);
        foreach (['points', 'lines', 'areas'] as $part) {
            foreach (['shp', 'shx', 'dbf', 'prj', 'cpg'] as $ending) {
                self::assertFileExists("$this->folder/west/$part.$ending");
            }
        }
        // GDAL brings the same places from the project's system to the other.
        $from = "$this->folder/west/points.shp";
        $json = (new Process(['ogr2ogr', '-f', 'GeoJSON', '-lco', 'COORDINATE_PRECISION=6', '/vsistdout/', $from]));
        $read = json_decode($json->mustRun()->getOutput(), true, 32, \JSON_THROW_ON_ERROR)['features'];
        $points = array_column($this->get('/points')['points'], null, 'name');
        $first = $points[$read[0]['properties']['name']];
        $transformed = (new Process(['gdaltransform', '-s_srs', 'EPSG:25830', '-t_srs', 'EPSG:25829', '-output_xy']));
        $transformed->setInput("{$first['e']} {$first['n']}\n");
        [$e, $n] = array_map(floatval(...), explode(' ', trim($transformed->mustRun()->getOutput())));
        self::assertEqualsWithDelta([$e, $n], \array_slice($read[0]['geometry']['coordinates'], 0, 2), 1e-3);
        self::assertStringContainsString('Feature Count: 1', $this->info('west/areas.shp'));
    }

    public function testNothingAndNonsenseAreSaid(): void
    {
        $empty = $this->post('/handover/gis', ['name' => 'none', 'roles' => ['adjusted'], 'plan' => 0.0, 'unknown' => false])['set'];
        $error = (string) $this->job('/handover', ['kind' => 'gis', 'surfaces' => [$empty]])['error'];
        self::assertMatchesRegularExpression('/none of \d+ points is known well enough/', $error);
        foreach ([['system' => 'mars', 'pointer' => '/system'], ['attributes' => ['colour'], 'pointer' => '/attributes']] as $body) {
            $refused = $this->post('/handover/gis', ['name' => 'x'] + array_diff_key($body, ['pointer' => 1]), 422);
            self::assertSame($body['pointer'], $refused['errors'][0]['pointer']);
        }
        $refused = $this->post('/handover/gis/count', ['name' => 'x', 'system' => 'EPSG:999999'], 422);
        self::assertSame('/system', $refused['errors'][0]['pointer']);
    }
}
