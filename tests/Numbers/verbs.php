<?php

declare(strict_types=1);

// Every fixture input of every verb through the batch command, one answer after the other. First line: whether the JIT is on.
// php [-d ...] tests/Numbers/verbs.php FOLDER     (an empty folder for the files that are made)

use Batch\Verbs;
use Demo\Street;
use Mensura\Reference\Registry\Registry;
use Mensura\Tests\Fixture;

require __DIR__.'/../../config/jit.php';
require __DIR__.'/../../vendor/autoload.php';
ini_set('precision', '17');
ini_set('serialize_precision', '-1');

$folder = $argv[1];
echo ($jit = opcache_get_status(false)) && $jit['jit']['on'] ? "jit on\n" : "jit off\n";

$run = static function (string ...$arguments) use ($folder): void {
    $out = fopen('php://memory', 'w+');
    $err = fopen('php://memory', 'w+');
    assert(false !== $out && false !== $err);
    $exit = (new Verbs($out, $err))->call(array_values($arguments));
    rewind($out);
    rewind($err);
    echo '== ', implode(' ', array_map(basename(...), $arguments)), " -> $exit\n", stream_get_contents($out), stream_get_contents($err);
    foreach (glob("$folder/out-*") ?: [] as $file) {
        echo basename($file), ' ', hash_file('sha256', $file), "\n";
        unlink($file);
    }
};
$write = static function (string $name, string $contents) use ($folder): string {
    file_put_contents("$folder/$name", $contents);
    touch("$folder/$name", 1_900_000_000);

    return "$folder/$name";
};

foreach (glob(Fixture::path('network/*.input.json')) ?: [] as $network) {
    foreach ([[], ['--free'], ['--screen', '2.5'], ['--preanalysis'], ['--suspects', '20']] as $options) {
        $run('adjust', $network, ...$options);
    }
}

$json = static fn (string $name, string $format, array $document): string => $write(
    $name, json_encode(['format' => $format] + $document, \JSON_THROW_ON_ERROR),
);
$weather = ['temperature' => 17.5, 'pressure' => 968.0, 'humidity' => 55];
foreach (Fixture::json('totalstation/rounds.json')['cases'] as $k => $case) {
    $run('reduce', $json("book-$k.json", 'mensura-book/1', [
        'settings' => ['referenceRefractivity' => 281.8, 'wavelength' => 0.85], 'setups' => [['weather' => $weather] + $case['setup']],
    ]));
}
foreach (array_values(Fixture::json('traverse/traverses.json')) as $k => $case) {
    $run('traverse', $json("traverse-$k.json", 'mensura-traverse/1', $case['input']));
}
foreach (['BF', 'BFFB', 'BBFF'] as $pattern) {
    $rows = [];
    for ($k = 0; $k < 40; ++$k) {
        foreach (str_split($pattern) as $i => $letter) {
            $rows[] = [
                'kind' => 'B' === $letter ? 'back' : 'fore', 'point' => 'T'.($k + ('B' === $letter ? 0 : 1)),
                'reading' => round(1.5 + sin(7.1 * $k + ('B' === $letter ? 0 : 2) + 1e-4 * $i), 5), 'distance' => 20.0 + $k % 7 + 0.1 * $i,
            ];
        }
    }
    $run('level', $json("level-$pattern.json", 'mensura-level/1', [
        'settings' => ['allowable' => ['k' => 0.004, 'per' => 'km'], 'curvature' => true, 'repeatLimit' => 0.0001],
        'benchmarks' => [['id' => 'T0', 'h' => 101.234], ['id' => 'T17', 'h' => 100.9], ['id' => 'T40', 'h' => 99.8]],
        'runs' => [['id' => 'r', 'pattern' => $pattern, 'rows' => $rows]],
    ]));
}

$csv = static fn (array $points): string => "id,e,n,h\n"
    .implode('', array_map(static fn (array $p): string => vsprintf("%s,%.3f,%.3f,%.3f\n", $p), $points));
mt_srand(7);
$random = static fn (float $to): float => $to * mt_rand() / mt_getrandmax();
$hills = static fn (string $name, int $count): array => array_map(static function (int $i) use ($name, $random): array {
    $e = $random(1000.0);
    $n = $random(800.0);

    return [$name.$i, 493000.0 + $e, 6028000.0 + $n, 200.0 + 20.0 * sin($e / 90.0) * cos($n / 70.0) + $random(0.5)];
}, range(1, $count));
$before = $write('before.csv', $csv($hills('a', 20000)));
$after = $write('after.csv', $csv($hills('b', 15000)));
$scattered = $write('scattered.csv', $csv(array_map(
    static fn (array $p, int|string $i): array => [(string) $i, $p[0], $p[1], 10.0 + fmod(7.0 * (int) $i, 3.0)],
    $points = Fixture::json('surface/scattered.json')['points'],
    array_keys($points),
)));
$line = static fn (string $role, array $at): array => ['type' => 'Feature', 'properties' => ['role' => $role], 'geometry' => [
    'type' => 'breakline' === $role ? 'LineString' : 'Polygon',
    'coordinates' => 'breakline' === $role ? $at : [[...$at, $at[0]]],
]];
$lines = $write('lines.geojson', json_encode(['type' => 'FeatureCollection', 'features' => [
    $line(
        'breakline',
        array_map(static fn (int $k): array => [493050.0 + 22.5 * $k, 6028400.0 + 80.0 * sin(0.3 * $k), 205.0 + 0.1 * $k], range(0, 40)),
    ),
    $line('breakline', [[493100.5, 6028100.25], [493800.125, 6028210.5], [493900.0, 6028700.0]]),
    $line('boundary', [[493020.0, 6028020.0], [493980.0, 6028030.0], [493950.0, 6028780.0], [493030.0, 6028760.0]]),
    $line('void', [[493200.0, 6028500.0], [493400.0, 6028520.0], [493380.0, 6028650.0], [493210.0, 6028640.0]]),
    $line('void', [[493350.0, 6028600.0], [493500.0, 6028600.0], [493500.0, 6028700.0], [493350.0, 6028700.0]]),
]], \JSON_THROW_ON_ERROR));
$volcano = Fixture::path('surface/volcano.csv');
$run('surface', $volcano, '--contours', '10', '--against', '120');
$run('surface', $scattered, '--contours', '0.25', '--contours-out', "$folder/out-c.geojson", '--against', 'rim', '--max-edge', '90');
$run(
    'surface', $before, '--lines', $lines, '--contours', '2', '--contours-out', "$folder/out-c.geojson", '--out',
    "$folder/out-s.xml", '--against', $after, '--crossing', 'mean',
);
$run('surface', $after, '--out', "$folder/after.xml");
touch("$folder/after.xml", 1_900_000_000);
$run('surface', $before, '--against', "$folder/after.xml");
$run('surface', $write('none.csv', "id,e,n,h\n"));

$registry = Registry::open();
$bySystem = [];
foreach (Fixture::csv('reference/systems.csv') as $row) {
    $bySystem[$row['code']][] = $row;
}
foreach ($bySystem as $code => $rows) {
    $geodetic = (string) $registry->horizontalSystem($code)->geodetic;
    $run(
        'transform', '--from', $geodetic, '--to', $code,
        $write('geographic.csv', "lat,lon\n".implode('', array_map(static fn (array $r): string => "$r[lat],$r[lon]\n", $rows))),
    );
    $run(
        'transform', '--from', $code, '--to', $geodetic,
        $write('plane.csv', "e,n\n".implode('', array_map(static fn (array $r): string => "$r[e],$r[n]\n", $rows))),
    );
}
foreach (Fixture::csv('reference/shifts.csv') as $i => $row) {
    $names = abs((float) $row['a']) > 400.0 ? (abs((float) $row['c']) > 1e5 ? ['x', 'y', 'z'] : ['e', 'n', 'h']) : ['lat', 'lon', 'h'];
    $high = '' === $row['c'] ? 2 : 3;
    $table = implode(',', array_slice($names, 0, $high))."\n".implode(',', array_slice([$row['a'], $row['b'], $row['c']], 0, $high))."\n";
    $run(
        'transform', '--from', $row['from'], '--to', $row['to'], '--allow-ballpark',
        ...('' === $row['epoch'] ? [] : ['--epoch', $row['epoch']]), ...[$write("shift$i.csv", $table)],
    );
}
$rows = '';
for ($i = 0; $i < 3000; ++$i) {
    $rows .= sprintf("%d,%.9f,%.9f,%.3f\n", $i, 48.0 + $random(5.0), 8.0 + $random(5.0), $random(900.0));
}
$table = $write('many.csv', "id,lat,lon,h\n".$rows);
foreach (['EPSG:25832', 'EPSG:31467', 'EPSG:4978', 'EPSG:4326+EPSG:5773', 'EPSG:3035'] as $to) {
    $run('transform', '--from', 'EPSG:4937', '--to', $to, '--allow-ballpark', $table);
    $run('transform', '--from', 'EPSG:4937', '--to', $to, '--allow-ballpark', '--pipeline', $table);
}

$cloud = "id,e,n,h\n";
for ($k = 0; $k < 300; ++$k) {
    $cloud .= sprintf("p%d,%.4f,%.4f,%.4f\n", $k, 20.0 * sin(1.7 * $k), 6.0 * cos(0.9 * $k), 2.0 + 3.0 * sin(0.3 * $k));
}
$cloud = $write('cloud.csv', $cloud);
foreach ([Fixture::path('mesh/faces.dxf'), $cloud, '1.25'] as $reference) {
    foreach (['vertical', 'normal'] as $along) {
        $run('deviation', $cloud, '--reference', $reference, '--along', $along, '--bands', '-0.5,0,0.5', '--out', "$folder/out-d.csv");
    }
}
$run('deviation', $cloud, '--reference', $cloud, '--reference-as', 'plane', '--along', 'normal', '--ignore', '2');
$lines = '';
for ($k = 0; $k < 6000; ++$k) {
    [$e, $n] = [$k % 80 + 0.3 * sin($k), intdiv($k, 80) + 0.3 * cos(1.3 * $k)];
    $lines .= sprintf("%.3f %.3f %.3f\n", $e, $n, 3.0 * sin($e / 20.0) + (0 === $k % 9 ? 4.0 + sin($k) : 0.02 * sin(7.0 * $k)));
}
$scan = $write('scan.xyz', $lines);
$run('cloud', $scan, '--thin', '1.5', '--out', "$folder/out-thin.las");
$run('cloud', $scan, '--noise', '--ground', '--crop', '5,5,70,60', '--out', "$folder/out-ground.las");
$run('cloud', $scan, '--ground', '--class', '2', '--out', "$folder/out-ground.e57");
foreach (['nadir', 'close'] as $kind) {
    $run('block', $write("$kind.json", (string) json_encode(Fixture::json("image/block-$kind.json")['block'])));
}
$street = new Street(50.0, true, 7);
$drives = [];
foreach (['p1' => 0.0, 'p2' => 0.3] as $id => $off) {
    $wrong = static fn (float $t): array => [$off, -$off, $off / 3.0];
    ['trajectory' => $trajectory, 'points' => $points] = $street->drive(1000.0 + 1000.0 * $off, $wrong, 900);
    $write("$id.csv", Street::csv('time,e,n,h,roll,pitch,heading', $trajectory));
    $write("$id-points.csv", Street::csv('time,e,n,h', $points));
    $drives[] = ['id' => $id, 'trajectory' => "$id.csv", 'points' => "$id-points.csv"];
}
$passes = ['reference' => 'p1', 'settings' => ['every' => ['distance' => 12.5]], 'passes' => $drives];
$run('passes', $json('passes.json', 'mensura-passes/1', $passes));
$run('surface', Fixture::path('surface/volcano.csv'), '--out', "$folder/volcano.xml");
$way = $write('way.geojson', '{"type":"LineString","coordinates":[[5,5],[300,210],[600,-50]]}');
$run('section', '--line', $way, '--surface', "$folder/volcano.xml", '--points', $cloud, '--offset', '12');
