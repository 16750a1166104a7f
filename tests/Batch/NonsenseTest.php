<?php

declare(strict_types=1);

namespace App\Tests\Batch;

use Batch\Verbs;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * Points, lines and tables at random, from seeds, with all options: a verb answers or says in one line why not; it never
 * fails itself (exit 1). Damaged networks: FuzzTest of the core.
 */
final class NonsenseTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/nonsense-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        array_map('unlink', glob($this->folder.'/*') ?: []);
        rmdir($this->folder);
    }

    /** @return iterable<string, array{string, array<string, mixed>}> */
    public static function documents(): iterable
    {
        foreach (Fixture::json('totalstation/rounds.json')['cases'] as $k => $case) {
            yield "book $k" => ['reduce', [
                'format' => 'mensura-book/1', 'settings' => ['refraction' => 0.13, 'referenceRefractivity' => 285.0, 'wavelength' => 0.658],
                'setups' => [['weather' => ['temperature' => 12.0, 'pressure' => 985.0, 'humidity' => 60]] + $case['setup']],
            ]];
        }
        foreach (Fixture::json('traverse/traverses.json') as $name => $case) {
            yield "traverse, $name" => ['traverse', $case['input']];
        }
        $sights = [];
        foreach (['A', 'B', 'C', 'D'] as $k => $point) {
            $sights[] = ['kind' => 'back', 'point' => $point, 'reading' => 1.2 + $k, 'distance' => 20.0];
            $sights[] = ['kind' => 'fore', 'point' => \chr(\ord($point) + 1), 'reading' => 1.1, 'distance' => 21.0];
        }
        yield 'level' => ['level', [
            'format' => 'mensura-level/1',
            'settings' => ['allowable' => ['k' => 0.004, 'per' => 'km'], 'distribute' => 'length', 'curvature' => true,
                'staff' => ['scalePpm' => 3, 'expansion' => 1e-6, 'temperature' => 10, 'referenceTemperature' => 20]],
            'benchmarks' => [['id' => 'A', 'h' => 100.0], ['id' => 'C', 'h' => 101.0]],
            'runs' => [
                ['id' => '1', 'pattern' => 'BF', 'rows' => $sights],
                ['id' => '2', 'pattern' => 'BF', 'rows' => \array_slice($sights, 4)],
            ],
        ]];
    }

    /**
     * Documents in which one member after the other is left out, or is something else.
     *
     * @param array<string, mixed> $document
     */
    #[DataProvider('documents')]
    public function testDamagedDocuments(string $verb, array $document): void
    {
        $random = new Randomizer(new Mt19937(11));
        $others = [null, 0, -1, 1e30, 'x', '', true, [], [1], ['a' => 1], 360.0, 'A'];
        $answered = 0;
        for ($i = 0; $i < 150; ++$i) {
            $damaged = $document;
            $at = &$damaged;
            while (\is_array($at) && [] !== $at && $random->getInt(0, 9) > 0) {
                $keys = array_keys($at);
                $at = &$at[$keys[$random->getInt(0, \count($keys) - 1)]];
            }
            $at = $others[$random->getInt(0, \count($others) - 1)];
            unset($at);
            [$exit, $out, $err] = $this->answer($verb, $this->write('damaged.json', (string) json_encode($damaged)));
            self::assertContains($exit, [0, 2], $err.json_encode($damaged));
            if (2 === $exit) {
                self::assertSame('', $out);
                self::assertSame(1, substr_count($err, "\n"), $err);
                self::assertStringContainsString('damaged.json', $err);
            } else {
                self::assertIsArray(json_decode($out, true));
                ++$answered;
            }
        }
        self::assertGreaterThan(0, $answered);
    }

    #[DataProvider('seeds')]
    public function testSurfaces(int $seed): void
    {
        $random = new Randomizer(new Mt19937($seed));
        for ($i = 0; $i < 80; ++$i) {
            $size = [8, 100][$random->getInt(0, 1)];
            $points = "id,e,n,h\n";
            for ($k = $random->getInt(0, 50); $k > 0; --$k) {
                // Grids with many points at one place, nearly at one place, and scattered ones.
                $at = static fn (): float => 8 === $size
                    ? $random->getInt(0, 8) + 1e-4 * $random->getInt(0, 1)
                    : $random->getInt(0, 100000) / 1000;
                $points .= \sprintf("p%d,%.4f,%.4f,%.2f\n", $k, $at(), $at(), $random->getInt(0, 1000) / 100);
            }
            $features = [];
            for ($k = $random->getInt(0, 4); $k > 0; --$k) {
                $role = ['breakline', 'boundary', 'void'][$random->getInt(0, 2)];
                $line = [];
                for ($j = $random->getInt(2, 5); $j > 0; --$j) {
                    $line[] = [
                        $random->getInt(-2, 2 * $size + 2) / 2, $random->getInt(-1, $size + 1),
                        ...(0 === $random->getInt(0, 1) ? [$random->getInt(0, 9)] : []),
                    ];
                }
                $features[] = ['type' => 'Feature', 'properties' => ['role' => $role], 'geometry' => 'breakline' === $role ? [
                    'type' => 'LineString', 'coordinates' => $line,
                ] : ['type' => 'Polygon', 'coordinates' => [[...$line, $line[0]]]]];
            }
            $lines = $this->write(
                'lines.geojson',
                json_encode(['type' => 'FeatureCollection', 'features' => $features], \JSON_THROW_ON_ERROR),
            );
            $options = [
                [], ['--contours', '0.5', '--against', 'rim'], ['--against', '5', '--crossing', 'mean'],
                ['--max-edge', '3', '--out', $this->folder.'/out.xml'],
            ][$random->getInt(0, 3)];
            $this->answers('surface', $this->write('points.csv', $points), '--lines', $lines, ...$options);
        }
    }

    /** Drawings, meshes and clouds with a byte changed, left out or cut off; points in and far from them. */
    #[DataProvider('seeds')]
    public function testFacesAndPoints(int $seed): void
    {
        $random = new Randomizer(new Mt19937($seed));
        $ply = "ply\nformat ascii 1.0\nelement vertex 4\nproperty float x\nproperty float y\nproperty float z\nelement face 2\n"
            ."property list uchar int vertex_indices\nend_header\n0 0 0\n9 0 0\n9 9 1\n0 9 1\n3 0 1 2\n3 0 2 3\n";
        $references = [
            'faces.dxf' => (string) file_get_contents(Fixture::path('mesh/faces.dxf')), 'mesh.ply' => $ply,
            'surface.csv' => "id,e,n,h\nA,0,0,1\nB,9,0,2\nC,0,9,3\nD,9,9,4\n",
            'surface.xml' => '<LandXML><Surfaces><Surface name="S"><Definition surfType="TIN"><Pnts><P id="1">0 0 1</P><P id="2">0 9 2</P>'
                .'<P id="3">9 0 3</P></Pnts><Faces><F>1 2 3</F><F i="1">3 2 1</F></Faces></Definition></Surface></Surfaces></LandXML>',
        ];
        $line = $this->write('line.geojson', '{"type":"LineString","coordinates":[[-1,2],[5,3],[7,12]]}');
        for ($i = 0; $i < 60; ++$i) {
            $name = array_keys($references)[$random->getInt(0, 3)];
            $bytes = $references[$name];
            $at = $random->getInt(0, \strlen($bytes) - 1);
            $bytes = match ($random->getInt(0, 4)) {
                0 => $bytes,
                1 => substr($bytes, 0, $at),
                2 => substr_replace($bytes, \chr($random->getInt(0, 255)), $at, 1),
                3 => substr_replace($bytes, '', $at, $random->getInt(1, 40)),
                default => substr_replace($bytes, ['-7', '1e999', 'nan', '99999999'][$random->getInt(0, 3)], $at, 1),
            };
            $points = "id,e,n,h\n";
            for ($k = $random->getInt(0, 6); $k > 0; --$k) {
                $place = [$random->getInt(-2, 12), $random->getInt(-2, 12), $random->getInt(0, 9000) / 1000];
                $points .= \sprintf("p%d,%d,%d,%.3f\n", $k, ...$place);
            }
            $options = [
                ['--along', 'vertical'], ['--along', 'normal', '--ignore', '0.5'], ['--along', 'normal', '--reference-as', 'plane'],
                ['--along', 'vertical', '--bands', '-0.1,0,0.1', '--out', $this->folder.'/out.csv'],
            ][$random->getInt(0, 3)];
            $reference = $this->write($name, $bytes);
            $this->answers('deviation', $this->write('points.csv', $points), '--reference', $reference, ...$options);
            if ('surface.xml' === $name) {
                $this->answers('section', '--line', $line, '--surface', $reference);
            }
        }
    }

    #[DataProvider('seeds')]
    public function testTables(int $seed): void
    {
        $random = new Randomizer(new Mt19937($seed));
        $systems = [
            'EPSG:4326', 'EPSG:4258', 'EPSG:25830', 'EPSG:4978', 'EPSG:4979', 'EPSG:2154', 'EPSG:31467', 'EPSG:4314',
            'EPSG:3035', 'EPSG:3857', 'EPSG:2056', 'EPSG:4326+EPSG:5773', 'EPSG:5514', 'EPSG:5041', 'EPSG:28992',
            'EPSG:9999', 'EPSG:27200',
        ];
        for ($i = 0; $i < 60; ++$i) {
            $columns = [['lat', 'lon'], ['lat', 'lon', 'h'], ['e', 'n'], ['e', 'n', 'h'], ['x', 'y', 'z']][$random->getInt(0, 4)];
            $table = implode(',', $columns)."\n";
            for ($k = $random->getInt(0, 5); $k > 0; --$k) {
                $table .= implode(',', array_map(static fn (string $column): string => [
                    '', 'x', '1e9', '0', 'nan', '"',
                ][$random->getInt(0, 60)] ?? match ($column) {
                    'lat' => $random->getInt(-95, 95).'.5', 'lon' => $random->getInt(-370, 370)
                        .'.25', 'h' => (string) $random->getInt(-100, 9000), default => (string) $random->getInt(-7000000, 7000000),
                }, $columns)).(0 === $random->getInt(0, 20) ? ",\n" : "\n");
            }
            $options = [
                [], ['--allow-ballpark'], ['--skip-bad', '--allow-ballpark'], ['--pipeline'],
                ['--native', '--skip-bad'],
            ][$random->getInt(0, 4)];
            $this->answers(
                'transform', '--from', $systems[$random->getInt(0, \count($systems) - 1)], '--to',
                $systems[$random->getInt(0, \count($systems) - 1)],
                ...[...$options, $this->write('table.csv', $table)],
            );
        }
    }

    /** @return iterable<array{int}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 4; ++$seed) {
            yield [$seed];
        }
    }

    private function answers(string ...$arguments): void
    {
        [$exit, , $said] = $this->answer(...$arguments);
        $inputs = implode(
            "\n",
            array_map(static fn (string $file): string => (string) file_get_contents($file), array_filter($arguments, is_file(...))),
        );
        self::assertContains($exit, [0, 2], implode(' ', $arguments)."\n$said\n$inputs");
        if (2 === $exit) {
            self::assertMatchesRegularExpression('/^mensura '.$arguments[0].': .+$/m', $said);
        }
    }

    /** @return array{int, string, string} exit code, standard output, standard error */
    private function answer(string ...$arguments): array
    {
        $out = fopen('php://memory', 'w+');
        $err = fopen('php://memory', 'w+');
        self::assertIsResource($out);
        self::assertIsResource($err);
        set_error_handler(static fn (
            int $level, string $message, string $file, int $line,
        ): never => throw new \ErrorException($message, 0, $level, $file, $line));
        try {
            $exit = (new Verbs($out, $err))->call(array_values($arguments));
        } finally {
            restore_error_handler();
        }
        rewind($out);
        rewind($err);

        return [$exit, (string) stream_get_contents($out), (string) stream_get_contents($err)];
    }

    private function write(string $name, string $contents): string
    {
        file_put_contents($this->folder.'/'.$name, $contents);

        return $this->folder.'/'.$name;
    }
}
