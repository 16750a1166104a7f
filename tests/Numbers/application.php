<?php

declare(strict_types=1);

// What the application answers: the demo project, and a network of more stations with two runs and its report, in one
// process as a worker is. First line: whether the JIT is on.
// php [-d ...] tests/Numbers/application.php FOLDER     (an empty folder for the database and the store)

use App\Account\User;
use App\Kernel;
use Doctrine\ORM\EntityManagerInterface;
use Smalot\PdfParser\Parser;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Component\Clock\Clock;
use Symfony\Component\Clock\MockClock;
use Symfony\Component\Console\Input\StringInput;
use Symfony\Component\Console\Output\NullOutput;
use Symfony\Component\HttpFoundation\File\UploadedFile;

require __DIR__.'/../../config/jit.php';
require __DIR__.'/../../vendor/autoload.php';

$folder = $argv[1];
mkdir("$folder/store");
$_SERVER['DATABASE_URL'] = $_ENV['DATABASE_URL'] = "sqlite:///$folder/mensura.db";
$_SERVER['STORE_DIR'] = $_ENV['STORE_DIR'] = "$folder/store";
require __DIR__.'/../bootstrap.php';
Clock::set(new MockClock('2031-05-04T09:00:00Z'));
echo ($jit = opcache_get_status(false)) && $jit['jit']['on'] ? "jit on\n" : "jit off\n";

if (!str_contains((string) $_SERVER['DATABASE_URL'], $folder)) {
    exit("the database is not in $folder\n");
}
$kernel = new Kernel('test', false);
$kernel->boot();
$console = new Application($kernel);
$console->setAutoExit(false);
foreach (['doctrine:migrations:migrate --no-interaction --quiet', 'mensura:demo'] as $command) {
    0 === $console->run(new StringInput($command), new NullOutput()) || exit("$command failed\n");
}
$container = $kernel->getContainer()->get('test.service_container');
assert($container instanceof Symfony\Component\DependencyInjection\ContainerInterface);
$entities = $container->get(EntityManagerInterface::class);
$client = $kernel->getContainer()->get('test.client');
assert($entities instanceof EntityManagerInterface && $client instanceof KernelBrowser);
$client->disableReboot();
$client->loginUser($entities->getRepository(User::class)->findOneBy(['username' => 'demo']) ?? exit("no account\n"));
$client->request('GET', '/api/session');
$token = json_decode((string) $client->getResponse()->getContent(), true, 8, \JSON_THROW_ON_ERROR)['token'];

$call = static function (string $method, string $path, ?array $body = null) use ($client, $token): array {
    $client->request(
        $method, $path, [], [],
        ['CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $token],
        null === $body ? null : json_encode([] === $body ? new stdClass() : $body, \JSON_THROW_ON_ERROR),
    );

    return json_decode((string) $client->getResponse()->getContent(), true, 64) ?? [];
};
$say = static function (string $what) use ($client): void {
    $response = $client->getResponse();
    $content = (string) $client->getInternalResponse()->getContent();
    if (str_starts_with($content, '%PDF')) {
        $content = (new Parser())->parseContent($content)->getText();
    }
    // Names of jobs are drawn at random.
    $content = (string) preg_replace('/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/', 'JOB', $content);
    // A PDF says when it was written, and no two are the same to the byte.
    $content = (string) preg_replace('/("name":"[^"]*\.pdf".*?"sha256":")[0-9a-f]{64}/', '$1PDF', $content);
    echo "== $what -> ", $response->getStatusCode(), "\n", mb_check_encoding($content, 'UTF-8') ? $content : hash('sha256', $content), "\n";
};

$at = '/api/projects/1';
foreach ([
    '', '/points', '/network', '/terrain', '/handover', '/reference', '/reference/systems?q=utm%2030', '/ledger',
    '/reference/inverse?from=KT01&to=KT05', '/reference/factors',
] as $path) {
    $call('GET', $at.$path);
    $say($path);
}
foreach ($call('GET', "$at/terrain")['surfaces'] as $surface) {
    foreach (['mesh', 'contours'] as $part) {
        $call('GET', "$at/terrain/surfaces/$surface[id]/$part");
        $say("surface $surface[id] $part");
    }
}
$files = static function (string $at) use ($call, $say): void {
    foreach ($call('GET', "$at/handover")['exports'] as $export) {
        $call('GET', "$at/handover/$export[id]/file");
        $say("$at $export[kind]");
    }
};
$files($at);

// A strip of 96 stations, twelve pointings each, adjusted twice, one observation set aside in between, and its report.
$id = $call('POST', '/api/projects', ['name' => 'Strip', 'reference' => 'EPSG:25830', 'heights' => 'ellipsoidal'])['id'];
$at = "/api/projects/$id";
mt_srand(5);
$noise = static fn (float $sd): float => $sd * sqrt(-2.0 * log((1 + mt_rand()) / (1 + mt_getrandmax()))) * cos(
    2.0 * \M_PI * mt_rand() / mt_getrandmax(),
);
$place = [];
for ($i = 0; $i < 96; ++$i) {
    $place[] = [493000.0 + 90.0 * ($i % 4) + $noise(9.0), 6028000.0 + 100.0 * intdiv($i, 4) + $noise(9.0), 180.0 + $noise(5.0)];
}
$control = "point,easting [m],northing [m],height [m],held\n";
foreach ([0, 3, 92, 95] as $i) {
    $control .= vsprintf("S%d,%.4f,%.4f,%.4f,yes\n", [$i, ...$place[$i]]);
}
$sights = "station,round,instrument height [m],target,target height [m],direction [deg],zenith angle [deg],slope distance [m]\n";
foreach ($place as $i => $p) {
    $turn = 360.0 * mt_rand() / mt_getrandmax();
    foreach ([$i - 4, $i - 1, $i + 1, $i + 4, $i + 5] as $j) {
        if (isset($place[$j]) && abs($j % 4 - $i % 4) < 2) {
            [$de, $dn, $dh] = [$place[$j][0] - $p[0], $place[$j][1] - $p[1], $place[$j][2] - $p[2] - 0.1];
            $plan = hypot($de, $dn);
            $sights .= sprintf(
                "S%d,1,1.5,S%d,1.4,%.5f,%.5f,%.4f\n", $i, $j,
                fmod(rad2deg(atan2($de, $dn)) - $turn + $noise(0.0004) + 720.0, 360.0),
                rad2deg(atan2($plan, $dh)) + $noise(0.0006), hypot($plan, $dh) / 0.9996 + $noise(0.002),
            );
        }
    }
}
foreach (['control.csv' => $control, 'sights.csv' => $sights] as $name => $contents) {
    file_put_contents("$folder/$name", $contents);
    $client->request(
        'POST', "$at/intake", [], ['file' => new UploadedFile("$folder/$name", $name, null, null, true)],
        ['HTTP_X_MENSURA_TOKEN' => $token, 'HTTP_ACCEPT' => 'application/json'],
    );
    $preview = json_decode((string) $client->getResponse()->getContent(), true, 64, \JSON_THROW_ON_ERROR);
    if ([] !== ($preview['meaning']['asks'] ?? [])) {
        $call('PUT', "$at/intake/$preview[id]/meaning", ['heights' => 'ellipsoidal', 'swap' => false, 'far' => true]);
    }
    $call('POST', "$at/intake/$preview[id]/accept", []);
    $say("accept $name");
}
$call('POST', "$at/network/adjust", []);
$call(
    'POST',
    "$at/network/use",
    ['rows' => [['id' => $call('GET', "$at/network")['rows'][0]['id'], 'component' => null]], 'aside' => true, 'reason' => 'to compare'],
);
$call('POST', "$at/network/adjust", []);
$call('GET', "$at/network");
$say('two runs');
foreach (['pdf', 'csv', 'dxf'] as $kind) {
    $call('POST', "$at/handover", ['kind' => $kind, 'surfaces' => []]);
    $say($kind);
}
$files($at);
