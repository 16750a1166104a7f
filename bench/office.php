<?php

declare(strict_types=1);

// The application with a project of 200,000 surveyed points and 20,000 observations: how long each step takes, how much memory
// it needs at its height, how large its answers are. Prints the figures beside the most they should be; asserts nothing.
// php bench/office.php [POINTS [STATIONS]]

use App\Account\User;
use App\Account\UserRepository;
use App\Kernel;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Component\DependencyInjection\ContainerInterface;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;

$root = dirname(__DIR__);
require $root.'/config/jit.php';
$folder = sys_get_temp_dir().'/office-'.bin2hex(random_bytes(4));
mkdir($folder);
register_shutdown_function(static fn () => passthru('rm -rf '.escapeshellarg($folder)));
foreach ([
    'APP_ENV' => 'bench', 'APP_DEBUG' => '0', 'DATABASE_URL' => "sqlite:///$folder/office.db",
    'STORE_DIR' => "$folder/store",
] as $name => $value) {
    putenv("$name=$value");
    $_SERVER[$name] = $_ENV[$name] = $value;
}
require $root.'/vendor/autoload.php';
(new Symfony\Component\Dotenv\Dotenv())->bootEnv($root.'/.env');
ini_set('memory_limit', '4G');
foreach (['cache:clear', 'doctrine:migrations:migrate'] as $command) {
    passthru('php '.escapeshellarg($root.'/bin/console')." $command --no-interaction --quiet");
}
$kernel = new Kernel('bench', false);
$kernel->boot();
$services = $kernel->getContainer()->get('test.service_container');
$client = $kernel->getContainer()->get('test.client');
assert($services instanceof ContainerInterface && $client instanceof KernelBrowser);
$client->disableReboot();
$users = $services->get(UserRepository::class);
$hasher = $services->get(UserPasswordHasherInterface::class);
assert($users instanceof UserRepository && $hasher instanceof UserPasswordHasherInterface);
$user = new User('bench', 'Bench');
$user->setPasswordHash($hasher->hashPassword($user, $password = bin2hex(random_bytes(12))));
$users->save($user);
$token = static function () use ($client): string {
    $client->request('GET', '/api/session');

    return json_decode((string) $client->getResponse()->getContent(), true)['token'];
};
$login = json_encode(['username' => 'bench', 'password' => $password], \JSON_THROW_ON_ERROR);
$client->request('POST', '/api/login', [], [], ['CONTENT_TYPE' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $token()], $login);
$token = $token();

$ask = static function (string $method, string $path, ?array $body = null, ?string $file = null) use ($client, $token): string {
    $files = null === $file ? [] : ['file' => new UploadedFile($file, basename($file), null, null, true)];
    $server = ['HTTP_X_MENSURA_TOKEN' => $token, 'HTTP_ACCEPT' => 'application/json']
        + (null === $file ? ['CONTENT_TYPE' => 'application/json'] : []);
    $client->request(
        $method, $path, [], $files, $server,
        null === $body ? null : json_encode([] === $body ? new stdClass() : $body, \JSON_THROW_ON_ERROR),
    );
    $answer = (string) $client->getInternalResponse()->getContent();
    $client->getResponse()->getStatusCode() < 400 || exit("$method $path: ".substr($answer, 0, 400)."\n");

    return $answer;
};
$entry = static function (string $answer) use (&$at, $ask): int {
    $d = json_decode($answer, true);

    return $d['seq'] ?? json_decode($ask('GET', "$at/jobs/$d[job]"), true)['outcome']['seq'];
};
/** @param string $most what it should be at most, as the office was promised */
$step = static function (string $what, string $most, Closure $do): string {
    gc_collect_cycles();
    memory_reset_peak_usage();
    $start = hrtime(true);
    $answer = $do();
    printf(
        "%-52s %8.2f s %7.0f MB %10s kB   %s\n", $what, (hrtime(true) - $start) / 1e9, memory_get_peak_usage() / 1e6,
        number_format(strlen($answer) / 1e3, 0), '' === $most ? '' : "($most)",
    );

    return $answer;
};

$count = (int) ($argv[1] ?? 200000);
$stations = (int) ($argv[2] ?? 1700);
mt_srand(11);
$random = static fn (float $to): float => $to * mt_rand() / mt_getrandmax();
$at = '/api/projects/'
    .json_decode($ask('POST', '/api/projects', ['name' => 'Large', 'reference' => 'EPSG:25830', 'heights' => 'ellipsoidal']), true)['id'];
$points = fopen("$folder/points.csv", 'w') ?: exit;
fwrite($points, "point,easting [m],northing [m],ellipsoidal height [m],code\n");
for ($i = 0; $i < $count; ++$i) {
    $e = $random(4000.0);
    $n = $random(3000.0);
    fprintf(
        $points, "T%d,%.3f,%.3f,%.3f,%s\n", $i, 493000.0 + $e, 6028000.0 + $n,
        200.0 + 20.0 * sin($e / 90.0) * cos($n / 70.0) + $random(0.1), 'GROUND',
    );
}
fclose($points);
$received = $step("read $count points (job)", '', static fn () => $ask('POST', "$at/intake", null, "$folder/points.csv"));
$id = json_decode($received, true)['id'];
$step('their preview', '300 kB', static fn () => $ask('GET', "$at/intake/$id"));
$seq = $entry($step("accept $count points (job)", '10 s, 512 MB', static fn () => $ask('POST', "$at/intake/$id/accept", [])));
$undo = $entry($step('undo that (job)', '10 s, 512 MB', static fn () => $ask('POST', "$at/ledger/$seq/undo", [])));
$step('do it again (job)', '10 s, 512 MB', static fn () => $ask('POST', "$at/ledger/$undo/undo", []));

// A strip of stations, four sights from each.
$place = [];
for ($i = 0; $i < $stations; ++$i) {
    $place[] = [493000.0 + 90.0 * ($i % 4) + $random(20.0), 6028000.0 + 100.0 * intdiv($i, 4) + $random(20.0), 180.0 + $random(9.0)];
}
$control = "point,easting [m],northing [m],ellipsoidal height [m],held\n";
foreach (array_unique([0, 3, ...range(40, $stations - 1, 80), $stations - 1]) as $i) {
    $control .= vsprintf("S%d,%.4f,%.4f,%.4f,yes\n", [$i, ...$place[$i]]);
}
$sights = "station,round,instrument height [m],target,target height [m],direction [deg],zenith angle [deg],slope distance [m]\n";
$sighted = 0;
foreach ($place as $i => $p) {
    $turn = $random(360.0);
    foreach ([$i - 4, $i - 1, $i + 1, $i + 4, $i + 5] as $j) {
        if (isset($place[$j]) && abs($j % 4 - $i % 4) < 2) {
            [$de, $dn, $dh] = [$place[$j][0] - $p[0], $place[$j][1] - $p[1], $place[$j][2] - $p[2] - 0.1];
            $bearing = fmod(rad2deg(atan2($de, $dn)) - $turn + 720.0 + $random(0.0004), 360.0);
            $sights .= sprintf(
                "S%d,1,1.5,S%d,1.4,%.5f,%.5f,%.4f\n", $i, $j, $bearing, rad2deg(atan2(hypot($de, $dn), $dh)),
                sqrt($de ** 2 + $dn ** 2 + $dh ** 2) / 0.9996,
            );
            $sighted += 3;
        }
    }
}
foreach (['control.csv' => $control, 'sights.csv' => $sights] as $name => $contents) {
    file_put_contents("$folder/$name", $contents);
    $preview = json_decode($step("preview of $name", '300 kB', static fn () => $ask('POST', "$at/intake", null, "$folder/$name")), true);
    if ([] !== ($preview['meaning']['asks'] ?? [])) {
        $ask('PUT', "$at/intake/$preview[id]/meaning", ['far' => true]);
    }
    $step("accept $name", '', static fn () => $ask('POST', "$at/intake/$preview[id]/accept", []));
}
$step("adjust $sighted observations (job)", '', static fn () => $ask('POST', "$at/network/adjust", []));
$step('overview, first after a change', '', static fn () => $ask('GET', $at));
$step('overview, as the page asks for it', '0.1 s', static fn () => $ask('GET', $at));
$step('open Network', '1 s, 2 MB', static fn () => $ask('GET', "$at/network"));
$step('points to the sketch', '6 MB', static fn () => $ask('GET', "$at/points"));
foreach (['csv', 'dxf', 'pdf'] as $kind) {
    $step("hand over $kind (job)", '', static fn () => $ask('POST', "$at/handover", ['kind' => $kind]));
}
$surface = ['name' => 'Ground', 'roles' => ['surveyed'], 'interval' => 1.0, 'lines' => [], 'maxEdge' => 60.0];
$made = $step("surface of $count points (job)", '', static fn () => $ask('POST', "$at/terrain/surfaces", $surface));
$id = json_decode($made, true)['surface'];
foreach (['mesh' => 'its triangles to the sketch', 'contours' => 'its contours to the sketch'] as $what => $words) {
    $step($words, '', static fn () => $ask('GET', "$at/terrain/surfaces/$id/$what"));
}
$step('its volume against an elevation (job)', '', static fn () => $ask('POST', "$at/terrain/surfaces/$id/volume", ['elevation' => 200.0]));
$jobs = json_decode($ask('GET', "$at/jobs"), true);
foreach ($jobs as $job) {
    'done' === $job['state'] || print "$job[title]: $job[state], $job[error]\n";
}
$step(
    'change of system (job)',
    '',
    static fn () => $ask('PUT', "$at/reference", ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal']),
);
$step('back to the beginning (job)', '', static fn () => $ask('POST', "$at/ledger/0/back", []));
