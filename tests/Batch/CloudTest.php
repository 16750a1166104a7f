<?php

declare(strict_types=1);

namespace App\Tests\Batch;

use Mensura\Tests\Cloud\TileWalk;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The verb cloud as a script would call it. LAS files are made and read by Python after the tables of the LAS specification 1.4 R15. */
final class CloudTest extends TestCase
{
    /** Writes points of format 3 (or 7) with intensity, returns, time and colour; of the header what readers look at. */
    private const MAKE = <<<'PY'
        import struct, sys
        path, fmt, scale = sys.argv[1], int(sys.argv[2]), float(sys.argv[3])
        off, crs = float(sys.argv[4]), int(sys.argv[5])
        P = [tuple(map(float, p.split(','))) for p in sys.argv[6].split(' ')]
        new = fmt > 5
        size, rec = (375, 36) if new else (227, 34)
        keys = struct.pack('<12H', 1, 1, 0, 2, 1024, 0, 1, 2 if crs == 4326 else 1, 2048 if crs == 4326 else 3072, 0, 1, crs)
        vlr = struct.pack('<H16sHH32s', 0, b'LASF_Projection', 34735, len(keys), b'') + keys if crs else b''
        h = bytearray(size)
        h[0:4] = b'LASF'; h[24], h[25] = 1, 4 if new else 2
        struct.pack_into('<HII', h, 94, size, size + len(vlr), 1 if crs else 0)
        struct.pack_into('<BHI', h, 104, fmt, rec, 0 if new else len(P))
        struct.pack_into('<5I', h, 111, 0 if new else len(P), 0, 0, 0, 0)
        north = 6000000 if P[0][1] > 2e6 else off
        struct.pack_into('<6d', h, 131, scale, scale, scale, off, north, 0)
        for k in range(3):
            v = [p[k] for p in P]
            struct.pack_into('<2d', h, 179 + 16 * k, max(v), min(v))
        if new:
            struct.pack_into('<Q', h, 247, len(P))
        b = bytes(h) + vlr
        for i, (x, y, z, c) in enumerate(P):
            q = [round((x - off) / scale), round((y - north) / scale), round(z / scale)]
            if new:
                b += struct.pack('<3iHBBBBhHd3H', *q, 100 + i, 17, 0, int(c), 5, 30, 77, 1000.5 + i, 1, 2, 3)
            else:
                b += struct.pack('<3iHBBbBHd3H', *q, 100 + i, 9, int(c) | 64, 3, 5, 77, 1000.5 + i, 1, 2, 3)
        open(path, 'wb').write(b)
        PY;

    private const READ = <<<'PY'
        import struct, sys, json
        b = open(sys.argv[1], 'rb').read()
        size, start, vlrs = struct.unpack_from('<HII', b, 94)
        fmt, rec, n = struct.unpack_from('<BHI', b, 104)
        by = struct.unpack_from('<5I', b, 111)
        s = struct.unpack_from('<6d', b, 131); box = struct.unpack_from('<6d', b, 179)
        if b[25] >= 4:
            n = struct.unpack_from('<Q', b, 247)[0]; by = struct.unpack_from('<15Q', b, 255)
        P = []
        for i in range(n):
            o = start + i * rec
            q = struct.unpack_from('<3iH', b, o)
            c = b[o + 16] if fmt > 5 else b[o + 15] & 31
            P.append([q[k] * s[k] + s[k + 3] for k in range(3)] + [c, q[3], b[o + 12:o + rec].hex()])
        print(json.dumps({'version': b[25], 'format': fmt, 'record': rec, 'n': n, 'returns': list(by), 'box': box, 'points': P,
            'whole': start + n * rec == len(b), 'vlr': vlrs, 'code': struct.unpack_from('<H', b, size + 54 + 22)[0] if vlrs else 0}))
        PY;

    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/mensura-cloud-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        (new Process(['rm', '-rf', $this->folder]))->run();
    }

    private function las(string $name, string $points, int $format = 3, float $scale = 0.001, float $offset = 0.0, int $crs = 25830): void
    {
        $numbers = array_map(strval(...), [$format, $scale, $offset, $crs]);
        (new Process(['/usr/bin/python3', '-c', self::MAKE, "$this->folder/$name", ...$numbers, $points]))->mustRun();
    }

    /** @return array<string, mixed> */
    private function read(string $name): array
    {
        $process = new Process(['/usr/bin/python3', '-c', self::READ, "$this->folder/$name"]);

        return json_decode($process->mustRun()->getOutput(), true, 16, \JSON_THROW_ON_ERROR);
    }

    /** @return array{int, string, string} */
    private function mensura(string ...$arguments): array
    {
        $process = new Process([\dirname(__DIR__, 2).'/bin/mensura', 'cloud', ...$arguments], $this->folder, null, null, 120);
        $process->run();

        return [(int) $process->getExitCode(), $process->getOutput(), $process->getErrorOutput()];
    }

    /** @return array<string, mixed> */
    private function answer(string ...$arguments): array
    {
        [$code, $out, $err] = $this->mensura(...$arguments);
        self::assertSame(0, $code, $err);
        $answer = json_decode($out, true, 16, \JSON_THROW_ON_ERROR);
        self::assertSame('mensura-cloud/1', $answer['format']);

        return $answer;
    }

    /** @return iterable<string, array{int}> */
    public static function formats(): iterable
    {
        yield 'LAS 1.2, point format 3' => [3];
        yield 'LAS 1.4, point format 7' => [7];
    }

    #[DataProvider('formats')]
    public function testRecordsGoOverWithAllTheySay(int $format): void
    {
        $this->las('in.las', '1.25,2.5,3.125,2 4.5,5.5,6.5,5 9.75,8.5,7.25,2', $format, 0.001, 0.0);
        $answer = $this->answer('in.las', '--crop', '0,0,5,6', '--out', 'out.las');
        self::assertSame([3, 2, ['2' => 1, '5' => 1]], [$answer['read'], $answer['written'], $answer['classes']]);
        self::assertSame([1.25, 2.5, 3.125, 4.5, 5.5, 6.5], $answer['extent']);
        [$before, $after] = [$this->read('in.las'), $this->read('out.las')];
        self::assertSame(\array_slice($before['points'], 0, 2), $after['points']);
        self::assertSame([$format, $before['record'], 2, true, 25830], [
            $after['format'], $after['record'], $after['n'], $after['whole'], $after['code'],
        ]);
        self::assertSame([4.5, 1.25, 5.5, 2.5, 6.5, 3.125], $after['box']);
        self::assertSame(2, $after['returns'][0]);
    }

    #[DataProvider('formats')]
    public function testClassesChangeAndNothingElse(int $format): void
    {
        $points = [];
        for ($i = 0; $i < 144; ++$i) {
            $points[] = \sprintf('%.1F,%.1F,%.3F,%d', $i % 12, intdiv($i, 12), 1.0 + 0.01 * ($i % 12), 0 === $i % 50 ? 6 : 0);
        }
        $points[] = '5.5,5.5,4.0,0';
        $points[] = '60.0,60.0,90.0,0';
        $this->las('in.las', implode(' ', $points), $format, 0.001, 0.0);
        $answer = $this->answer('in.las', '--noise', '--ground', '--out', 'out.las');
        // The lonely one is noise, the one in the air is unclassified, all the rest is ground, whatever it was.
        self::assertSame(['1' => 1, '2' => 144, '7' => 1], $answer['classes']);
        $bits = $format > 5 ? 4 : 3;
        foreach (array_map(null, $this->read('in.las')['points'], $this->read('out.las')['points']) as [$a, $b]) {
            self::assertSame([$a[0], $a[1], $a[2], $a[4]], [$b[0], $b[1], $b[2], $b[4]]);
            // Synthetic and the other flags beside the class stay.
            self::assertSame(substr_replace($a[5], '', 2 * $bits, 2), substr_replace($b[5], '', 2 * $bits, 2));
            self::assertSame($format > 5 ? 0 : 64, hexdec(substr($b[5], 2 * $bits, 2)) & ($format > 5 ? 0 : 224));
        }
        self::assertSame(144, $this->answer('out.las', '--class', '2')['written']);
        self::assertSame(2, $this->answer('out.las', '--class', '1,7', '--out', 'two.xyz')['written']);
        self::assertSame("5.5000 5.5000 4.0000\n60.0000 60.0000 90.0000\n", file_get_contents("$this->folder/two.xyz"));
    }

    public function testSeveralBecomeOne(): void
    {
        $this->las('a.las', '500000.123,6000000.5,1,2 500001,6000001,2,2', 3, 0.001, 500000.0);
        $this->las('b.las', '500010.1234,6000010.5,3,5', 3, 0.0001, 500000.0);
        $answer = $this->answer('a.las', 'b.las', '--merge', '--out', 'out.las');
        self::assertSame([3, 3, 1.0], [$answer['read'], $answer['written'], $answer['density']]);
        $out = $this->read('out.las');
        self::assertEqualsWithDelta([500010.123, 6000010.5, 3.0], \array_slice($out['points'][2], 0, 3), 6e-4);
        self::assertSame('77', (string) hexdec(substr($out['points'][2][5], 12, 2)), 'what else is said goes over');
        $this->las('c.las', '500020,6000020,3,5', 7, 0.001, 500000.0);
        [$code, , $err] = $this->mensura('a.las', 'c.las', '--merge', '--out', 'mixed.las');
        self::assertSame(0, $code);
        self::assertStringContainsString('of several formats', $err);
        self::assertSame([0, 3], [$this->read('mixed.las')['format'], $this->read('mixed.las')['n']]);
        foreach (['ply', 'e57', 'xyz'] as $ending) {
            $this->answer('a.las', '--out', "a.$ending");
            $back = $this->answer("a.$ending", '--out', 'back.las');
            self::assertSame(2, $back['written']);
            self::assertEqualsWithDelta([500000.123, 6000000.5, 1.0], \array_slice($this->read('back.las')['points'][0], 0, 3), 6e-5);
        }
    }

    public function testAnotherSystemMovesThePoints(): void
    {
        $this->las('in.las', '493600,6028200,231,2 493700,6028250,232,5');
        $this->answer('in.las', '--to-crs', 'EPSG:4258', '--out', 'degrees.xyz');
        $geographic = explode(' ', explode("\n", (string) file_get_contents("$this->folder/degrees.xyz"))[0]);
        $this->answer('in.las', '--to-crs', 'EPSG:25831', '--out', 'out.las');
        self::assertSame(25831, $this->read('out.las')['code']);
        // PROJ does the same, within a tenth of a millimetre and a unit of the file.
        $gdal = new Process(['gdaltransform', '-s_srs', 'EPSG:25830', '-t_srs', 'EPSG:25831']);
        $gdal->setInput("493600 6028200\n");
        [$e, $n] = explode(' ', $gdal->mustRun()->getOutput());
        $out = $this->read('out.las')['points'][0];
        self::assertEqualsWithDelta([(float) $e, (float) $n, 231.0], \array_slice($out, 0, 3), 1.1e-3);
        self::assertSame(2, $out[3]);
        $gdal = new Process(['gdaltransform', '-s_srs', 'EPSG:25830', '-t_srs', 'EPSG:4258']);
        $gdal->setInput("493600 6028200\n");
        [$lon, $lat] = explode(' ', $gdal->mustRun()->getOutput());
        self::assertEqualsWithDelta([(float) $lon, (float) $lat], array_map(floatval(...), \array_slice($geographic, 0, 2)), 2e-9);
    }

    /** OGC 3D Tiles 1.0, point cloud: headers, lengths, places; every point in one tile. */
    public function testTilesHoldEveryPointOnce(): void
    {
        $lines = [];
        for ($i = 0; $i < 45_000; ++$i) {
            [$e, $n] = [500_000 + ($i * 7919 % 100_003) / 1000, 6_000_000 + ($i * 104_729 % 99_991) / 1000];
            $lines[] = \sprintf('%.3F %.3F %.3F', $e, $n, $i % 13);
        }
        file_put_contents("$this->folder/in.xyz", implode("\n", $lines)."\n");
        $this->answer('in.xyz', '--tiles', 'tiles');
        $found = TileWalk::points("$this->folder/tiles");
        sort($lines);
        sort($found);
        self::assertSame($lines, $found);
    }

    /** @return iterable<string, array{list<string>, string}> */
    public static function bad(): iterable
    {
        yield 'no file' => [[], 'give a point cloud'];
        yield 'not there' => [['none.las'], 'none.las'];
        yield 'cut off' => [['cut.las', '--out', 'out.las'], 'cut off'];
        yield 'scale of zero' => [['scale.las'], 'no usable scale'];
        yield 'no cloud' => [['area.geojson'], 'is no point cloud'];
        yield 'packed' => [['in.las', '--out', 'out.laz'], 'LAZ is read only'];
        yield 'another ending' => [['in.las', '--out', 'out.txt'], 'does not end in'];
        yield 'another folder' => [['in.las', '--out', 'none/out.las'], 'cannot be written'];
        yield 'crop of three' => [['in.las', '--crop', '1,2,3'], 'neither W,S,E,N nor a file'];
        yield 'crop the wrong way' => [['in.las', '--crop', '9,0,1,5'], 'give W,S,E,N'];
        yield 'crop by points' => [['in.las', '--crop', 'points.geojson'], 'no polygon'];
        yield 'thin by nothing' => [['in.las', '--thin', '0'], 'not a positive number'];
        yield 'a class that is none' => [['in.las', '--class', '2,x'], 'no list of classes'];
        yield 'a class beyond all' => [['in.las', '--class', '256'], 'no list of classes'];
        yield 'an unknown system' => [['in.las', '--to-crs', 'EPSG:1'], 'EPSG:1'];
        yield 'from nowhere' => [['nowhere.las', '--to-crs', 'EPSG:25831'], 'does not say which system'];
        yield 'two systems' => [['in.las', 'degrees.las', '--out', 'out.las'], 'name the system they are wanted in'];
        yield 'thinned degrees' => [['degrees.las', '--thin', '1'], 'degrees'];
        yield 'tiles in a file' => [['in.las', '--tiles', 'in.las'], 'no folder'];
    }

    /** @param list<string> $arguments */
    #[DataProvider('bad')]
    public function testBadInputSaysWhyAndLeavesNothing(array $arguments, string $says): void
    {
        $this->las('in.las', '493600,6028200,231,2 493700,6028250,232,5');
        $this->las('nowhere.las', '1,2,3,2', 3, 0.001, 0.0, 0);
        $this->las('degrees.las', '-3.1,54.4,3,2', 3, 1e-7, 0.0, 4326);
        $bytes = (string) file_get_contents("$this->folder/in.las");
        file_put_contents("$this->folder/cut.las", substr($bytes, 0, -20));
        file_put_contents("$this->folder/scale.las", substr_replace($bytes, pack('e', 0.0), 131, 8));
        file_put_contents("$this->folder/area.geojson", '{"type":"Polygon","coordinates":[[[0,0],[1,0],[1,1],[0,0]]]}');
        file_put_contents("$this->folder/points.geojson", '{"type":"Point","coordinates":[0,0]}');
        $before = scandir($this->folder);
        [$code, $out, $err] = $this->mensura(...$arguments);
        self::assertSame([2, ''], [$code, $out]);
        self::assertStringContainsString($says, $err);
        self::assertSame($before, scandir($this->folder));
    }

    public function testNothingLeftIsAnAnswerToo(): void
    {
        $this->las('in.las', '493600,6028200,231,2');
        $answer = $this->answer('in.las', '--crop', '0,0,1,1', '--ground', '--noise', '--out', 'out.las');
        self::assertSame([1, 0, [], null, null, null], [
            $answer['read'], $answer['written'], $answer['classes'], $answer['extent'], $answer['density'], $answer['spacing'],
        ]);
        self::assertSame([0, true], [$this->read('out.las')['n'], $this->read('out.las')['whole']]);
    }
}
