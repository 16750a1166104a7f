<?php

declare(strict_types=1);

namespace App\Tests\Batch;

use Batch\Verbs;
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
        rewind($err);
        $said = (string) stream_get_contents($err);
        $inputs = implode(
            "\n",
            array_map(static fn (string $file): string => (string) file_get_contents($file), array_filter($arguments, is_file(...))),
        );
        self::assertContains($exit, [0, 2], implode(' ', $arguments)."\n$said\n$inputs");
        if (2 === $exit) {
            self::assertMatchesRegularExpression('/^mensura '.$arguments[0].': .+$/m', $said);
        }
    }

    private function write(string $name, string $contents): string
    {
        file_put_contents($this->folder.'/'.$name, $contents);

        return $this->folder.'/'.$name;
    }
}
