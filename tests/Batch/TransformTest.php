<?php

declare(strict_types=1);

namespace App\Tests\Batch;

use Mensura\Tests\Reference\Ntv2;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The transform verb as a script would call it. */
final class TransformTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/mensura-transform-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        array_map('unlink', glob($this->folder.'/*') ?: []);
        rmdir($this->folder);
    }

    public function testColumnsAreReplacedWhereTheyStandAndOthersPass(): void
    {
        [$code, $out] = $this->run_(
            ['--from', 'EPSG:4258', '--to', 'EPSG:25830'],
            "id,lon,code,lat,remark\nA,-3.1,TREE,54.4,\"old, tall\"\nB,-3.0,PATH,0.0,\n",
        );
        self::assertSame(0, $code);
        self::assertSame("id,e,code,n,remark\nA,493508.047646,TREE,6028031.948634,\"old, tall\"\nB,500000.000000,PATH,0.000000,\n", $out);
    }

    public function testHeightsPassUnchangedAndItIsSaidOnce(): void
    {
        [$code, $out, $err] = $this->run_(['--from', 'EPSG:4258', '--to', 'EPSG:25830'], "lat,lon,h\n54.4,-3.1,012.30\n54.4,-3.1,7\n");
        self::assertSame(0, $code);
        self::assertStringContainsString(',012.30', $out);
        self::assertSame(1, substr_count($err, 'h passes unchanged'));
    }

    public function testGeocentricAndBack(): void
    {
        [, $out] = $this->run_(['--from', 'EPSG:4979', '--to', 'EPSG:4978'], "id,lat,lon,h\nA,52,-1,100\n");
        self::assertSame("id,x,y,z\nA,3934422.709908,-68675.603856,5002882.146558\n", $out);
        [, $back] = $this->run_(['--from', 'EPSG:4978', '--to', 'EPSG:4979'], $out);
        self::assertSame(
            "id,lat,lon,h\nA,52.00000000000,-1.00000000000,100.000000\n",
            preg_replace('/-1\.0{11}|-0\.9{11}/', '-1.00000000000', $back),
        );
    }

    public function testWestAndSouthColumns(): void
    {
        [, $out] = $this->run_(['--from', 'EPSG:4156', '--to', 'EPSG:2065', '--allow-ballpark', '--native'], "lat,lon\n50,15\n");
        self::assertStringStartsWith("w,s\n", $out);
        [, $plain] = $this->run_(['--from', 'EPSG:4156', '--to', 'EPSG:2065', '--allow-ballpark'], "lat,lon\n50,15\n");
        [$w, $s] = explode(',', explode("\n", $out)[1]);
        [$e, $n] = explode(',', explode("\n", $plain)[1]);
        self::assertSame([(float) $w, (float) $s], [-(float) $e, -(float) $n]);
        [, $back] = $this->run_(['--from', 'EPSG:2065', '--to', 'EPSG:4156', '--allow-ballpark'], $out);
        self::assertEqualsWithDelta(50.0, (float) explode(',', explode("\n", $back)[1])[0], 1e-8);
    }

    public function testFeetStayFeetAndGeoidFilesCount(): void
    {
        [, $out] = $this->run_(['--from', 'EPSG:4269', '--to', 'EPSG:2227'], "lat,lon\n37.8,-122.3\n");
        self::assertStringContainsString('6041635.262788,2118761.240882', $out);
        [, $out] = $this->run_(
            ['--from', 'EPSG:4979', '--to', 'EPSG:4326+EPSG:5773', '--geoid', '/usr/share/proj/egm96_15.gtx'],
            "lat,lon,h\n52,-1,100\n",
        );
        self::assertStringContainsString(',52.243454', $out);
    }

    public function testDefinitionsFromFiles(): void
    {
        file_put_contents($this->folder.'/site.txt', '+proj=tmerc +lat_0=0 +lon_0=-3 +k=0.9996 +x_0=500000 +y_0=0 +ellps=GRS80 +units=m');
        [$code, $out, $err] = $this->run_(['--from', 'EPSG:4258', '--to', $this->folder.'/site.txt'], "lat,lon\n54.4,-3.1\n");
        self::assertSame(0, $code);
        self::assertStringContainsString('493508.047646,6028031.948634', $out);
        self::assertStringContainsString('names no datum', $err);
    }

    public function testThePipelineIsPrinted(): void
    {
        [$code, $out] = $this->run_(['--from', 'EPSG:31467', '--to', 'EPSG:25832', '--area', '48,11,48.5,12', '--pipeline'], '');
        self::assertSame(0, $code);
        $d = json_decode($out, true, 16, \JSON_THROW_ON_ERROR);
        self::assertSame(['operation', 'accuracy', 'area', 'steps'], array_keys($d));
        self::assertSame(0.9, $d['accuracy']);
        self::assertSame(['method', 'source', 'parameters'], array_keys($d['steps'][1]));
        self::assertSame('BETA2007.gsb', $d['steps'][1]['parameters']['grid']);
    }

    public function testBadRowsAreSkippedWhenAsked(): void
    {
        $csv = "id,lat,lon\nA,54.4,-3.1\nB,91,2\nC,x,2\nD,54.4\nE,54.5,-3.1\n";
        [$code, $out, $err] = $this->run_(['--from', 'EPSG:4258', '--to', 'EPSG:25830', '--skip-bad'], $csv);
        self::assertSame(0, $code);
        self::assertSame(
            ['id,e,n', 'A', 'E'],
            array_map(static fn (string $l): string => str_starts_with($l, 'id') ? $l : $l[0], explode("\n", trim($out))),
        );
        foreach (['line 3: latitude 91', 'line 4: "x" in column lat', 'line 5: has 2 columns'] as $reason) {
            self::assertStringContainsString($reason, $err);
        }
        [$code, , $err] = $this->run_(['--from', 'EPSG:4258', '--to', 'EPSG:25830'], $csv);
        self::assertSame(2, $code);
        self::assertStringContainsString('in.csv line 3: latitude 91 is not between -90 and 90 degrees; are lat and lon swapped?', $err);
        self::assertSame(1, substr_count(trim($err), "\n") + 1);
    }

    /** @param list<string> $arguments */
    #[DataProvider('unusable')]
    public function testUnusableInput(array $arguments, string $csv, string $pattern): void
    {
        [$code, , $err] = $this->run_($arguments, $csv);
        self::assertSame(2, $code, $err);
        self::assertMatchesRegularExpression($pattern, $err);
    }

    /** @return iterable<string, array{list<string>, string, string}> */
    public static function unusable(): iterable
    {
        $plain = "lat,lon\n54.4,-3.1\n";
        yield 'no from' => [['--to', 'EPSG:4258'], $plain, '/--from: is missing/'];
        yield 'unknown code' => [['--from', 'EPSG:4258', '--to', 'EPSG:99999'], $plain, '/EPSG:99999 is not in the registry/'];
        yield 'a height alone' => [['--from', 'EPSG:4258', '--to', 'EPSG:5773'], $plain, '/is a height system/'];
        yield 'no such file' => [['--from', 'EPSG:4258', '--to', 'nowhere.wkt'], $plain, '/neither a code such as EPSG:25830 nor a file/'];
        yield 'missing grid' => [
            ['--from', 'EPSG:4277', '--to', 'EPSG:4326'],
            "lat,lon\n52,-1\n",
            '/line 2: "OSGB36 to WGS 84 \(9\)".*OSTN15_NTv2_OSGBtoETRS\.gsb.*--grid.*--allow-ballpark/',
        ];
        yield 'missing geoid' => [
            ['--from', 'EPSG:4979', '--to', 'EPSG:4326+EPSG:3855'], "lat,lon,h\n52,-1,0\n",
            '/needs? the geoid grid|need the geoid grid/',
        ];
        yield 'wrong columns' => [
            ['--from', 'EPSG:25830', '--to', 'EPSG:4258'],
            $plain,
            '/line 1: ETRS89 \/ UTM zone 30N is projected and needs the columns e,n; the header has lat,lon/',
        ];
        yield 'a column twice' => [['--from', 'EPSG:4258', '--to', 'EPSG:25830'], "lat,lat,lon\n1,2,3\n", '/column lat is there twice/'];
        yield 'a column in the way' => [['--from', 'EPSG:4258', '--to', 'EPSG:25830'], "lat,lon,e\n1,2,3\n", '/another of that name/'];
        yield 'empty' => [['--from', 'EPSG:4258', '--to', 'EPSG:25830'], '', '/has no header/'];
        yield 'binary' => [['--from', 'EPSG:4258', '--to', 'EPSG:25830'], "\0\1\2\n", '/binary/'];
        yield 'area' => [['--from', 'EPSG:4258', '--to', 'EPSG:25830', '--area', '1,2,3'], $plain, '/--area/'];
        yield 'epoch' => [['--from', 'EPSG:4258', '--to', 'EPSG:25830', '--epoch', 'now'], $plain, '/decimal year/'];
        yield 'outside' => [
            ['--from', 'EPSG:25830', '--to', 'EPSG:4258'], "e,n\n500000,99999999\n",
            '/line 2: easting 500000.000, northing 99999999.000 m lies outside/',
        ];
        yield 'no heights for geocentric' => [['--from', 'EPSG:4326', '--to', 'EPSG:4978'], $plain, '/needs heights/'];
        yield 'a pipeline for a place outside' => [
            ['--from', 'EPSG:3035', '--to', 'EPSG:4978', '--pipeline'],
            "e,n,h\n0,1000000000,5\n",
            '/in\.csv line 2: easting 0\.000, northing 1000000000\.000 m lies outside/',
        ];
        yield 'a pipeline for no number' => [
            ['--from', 'EPSG:25830', '--to', 'EPSG:4258', '--pipeline'], "# remark\ne,n\nx,5\n",
            '/in\.csv line 3: "x" in column e is not a number/',
        ];
        yield 'a pipeline for latitude 91' => [
            ['--from', 'EPSG:4258', '--to', 'EPSG:25830', '--pipeline'], "lat,lon\n91,5\n",
            '/in\.csv line 2: latitude 91/',
        ];
        yield 'a row too long' => [
            ['--from', 'EPSG:4258', '--to', 'EPSG:25830'], "lat,lon\n54.4,-3.1\n54.4,-3.1,7\n",
            '/line 3: has 3 columns where the header has 2/',
        ];
        yield 'the centre of the earth' => [
            ['--from', 'EPSG:4978', '--to', 'EPSG:4979'], "x,y,z\n0,0,0\n",
            '/line 2: .*centre of the earth, where there is no latitude/',
        ];
        yield 'near the centre' => [
            ['--from', 'EPSG:4978', '--to', 'EPSG:4979'], "x,y,z\n4500000,0,4500000\n100,-200,40000\n",
            '/line 3: .*no latitude/',
        ];
        yield 'a grid that is none' => [
            ['--from', 'EPSG:4326', '--to', 'EPSG:32630', '--grid', __FILE__], $plain,
            '/--grid: TransformTest\.php is not a geoid grid/',
        ];
        yield 'a grid that is not there' => [
            ['--from', 'EPSG:4326', '--to', 'EPSG:32630', '--grid', '/nowhere.gsb'],
            $plain,
            '/--grid: \/nowhere\.gsb cannot be read/',
        ];
        yield 'a grid without use' => [
            ['--from', 'EPSG:4258', '--to', 'EPSG:25830', '--grid', '/usr/share/proj/BETA2007.gsb'],
            $plain,
            '/the grid BETA2007\.gsb is named, but no step/',
        ];
        yield 'a geoid without use' => [
            ['--from', 'EPSG:4258', '--to', 'EPSG:25830', '--geoid', '/usr/share/proj/egm96_15.gtx'],
            $plain,
            '/neither system has a height system/',
        ];
    }

    public function testAGridNamedTakesThePlaceOfTheInstalledOne(): void
    {
        $grid = $this->folder.'/BETA2007.gsb';
        file_put_contents($grid, Ntv2::constant([47.0, 5.0, 55.0, 16.0], [4.5, -2.25]));
        $arguments = ['--from', 'EPSG:4314', '--to', 'EPSG:4258', '--grid', $grid];
        [$code, $out, $err] = $this->run_($arguments, "lat,lon\n48,11\n");
        self::assertSame([0, "lat,lon\n48.00125000000,10.99937500000\n"], [$code, $out], $err);
        [, $out] = $this->run_([...$arguments, '--pipeline'], '');
        self::assertSame('DHDN to ETRS89 (8)', json_decode($out, true, 16, \JSON_THROW_ON_ERROR)['operation']);
        [$code, , $err] = $this->run_($arguments, "lat,lon\n46.5,11\n");
        self::assertSame(2, $code);
        self::assertStringContainsString('outside the grid BETA2007.gsb', $err);
        // Only a worse way that is asked for takes over beyond the grid.
        [$code] = $this->run_([...$arguments, '--allow-ballpark'], "lat,lon\n46.5,11\n");
        self::assertSame(0, $code);
    }

    public function testStandardInputAndPipes(): void
    {
        $wanted = "lat,lon\n54.4,-3.1\n";
        foreach ([
            'printf "%s" "$CSV" | bin/mensura transform --from EPSG:4258 --to EPSG:25830 -',
            'bin/mensura transform --from EPSG:4258 --to EPSG:25830 <(printf "%s" "$CSV")',
            'printf "%s" "$CSV" | bin/mensura transform --from EPSG:4258 --to EPSG:25830 /dev/stdin',
            'mkfifo "$DIR/p"; printf "%s" "$CSV" > "$DIR/p" & bin/mensura transform --from EPSG:4258 --to EPSG:25830 "$DIR/p"',
        ] as $command) {
            $process = new Process(['bash', '-c', $command], \dirname(__DIR__, 2), ['CSV' => $wanted, 'DIR' => $this->folder]);
            $process->run();
            self::assertSame("e,n\n493508.047646,6028031.948634\n", $process->getOutput(), $command.$process->getErrorOutput());
        }
    }

    public function testADeprecatedCodeWarns(): void
    {
        [$code, , $err] = $this->run_(['--from', 'EPSG:4230', '--to', 'EPSG:2192'], "lat,lon\n45,2\n");
        self::assertSame(0, $code);
        self::assertMatchesRegularExpression('/EPSG:2192 .* is deprecated; use EPSG:\d+/', $err);
    }

    /**
     * @param list<string> $arguments
     *
     * @return array{int, string, string}
     */
    private function run_(array $arguments, string $csv): array
    {
        $path = $this->folder.'/in.csv';
        file_put_contents($path, $csv);
        $process = proc_open(
            [\PHP_BINARY, __DIR__.'/../../batch/run.php', 'transform', ...$arguments, $path],
            [1 => ['pipe', 'w'], 2 => ['pipe', 'w']],
            $pipes,
        );
        self::assertIsResource($process);
        $out = (string) stream_get_contents($pipes[1]);
        $err = (string) stream_get_contents($pipes[2]);

        return [proc_close($process), $out, $err];
    }
}
