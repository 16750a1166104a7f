<?php

declare(strict_types=1);

/** What reading and processing of GNSS sessions takes, beside what it should take at most. php bench/gnss-speed.php */

use Demo\Gnss\Receiver;
use Demo\Gnss\Sky;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Options;
use Mensura\Gnss\Orbits;

require __DIR__.'/../vendor/autoload.php';
ini_set('memory_limit', '4G');

$base = [3901600.0, 300100.0, 5020020.0];
$rover = Horizon::of($base)->shifted($base, 700.0, 500.0, 10.0);
foreach ([
    ['one hour at 30 s', 120, 30.0, BaselineProcessor::STATIC, 2.0], ['24 hours at 30 s', 2880, 30.0, BaselineProcessor::STATIC, 30.0],
    ['ten minutes at 1 s, kinematic', 600, 1.0, BaselineProcessor::KINEMATIC, 20.0],
] as [$what, $epochs, $interval, $mode, $most]) {
    $sky = new Sky(77);
    $place = BaselineProcessor::STATIC === $mode ? $rover
        : static fn (int $k): array => Horizon::of($rover)->shifted($rover, 1.5 * $k, 10.0 * sin($k / 20.0), 0.0);
    $b = $sky->observations(new Receiver('B', $base, $epochs, $interval, begin: 0.0));
    $r = $sky->observations(new Receiver('R', $place, $epochs, $interval, begin: 0.0));
    $nav = NavigationReader::read($sky->navigation(array_map(static fn (int $k): float => 208800.0 + 7200.0 * $k, range(0, 12))), 'n');
    $began = microtime(true);
    $bf = ObservationReader::read($b, 'b');
    $read = microtime(true) - $began;
    $session = SessionOf::of($bf, ObservationReader::read($r, 'r'), 'b', 'r');
    $s = (new BaselineProcessor($session, new Orbits($nav->ephemerides), null, new Options(deg2rad(10.0))))->run($mode, $base, true)[0];
    printf(
        "%-30s %5.1f s, should be %4.1f at most; read at %.0f MB/s; %s, ratio %.1f, %.1f satellites an epoch%s\n", $what,
        microtime(true) - $began, $most, strlen($b) / 1e6 / $read, $s->solution, $s->ratio, $session->rowCount() / $epochs,
        BaselineProcessor::STATIC === $mode ? sprintf(', off %.1f mm', 1000.0 * Horizon::distance($s->rover, $rover)) : '',
    );
}
