<?php

declare(strict_types=1);

/**
 * Seeded sessions of an invented constellation through the static processor: no wrong integers may be accepted, and stated
 * precisions must cover what is really wrong. Prints figures; asserts nothing.
 *
 * php bench/gnss-sessions.php [COUNT] [FIRST SEED]
 */

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

$count = (int) ($argv[1] ?? 200);
$first = (int) ($argv[2] ?? 1);
$base = [3901600.0, 300100.0, 5020020.0];
$tally = ['fixed' => 0, 'float' => 0, 'wrong' => 0, 'beyond' => 0, 'moved fixed' => 0];
$worst = [];
$began = microtime(true);
for ($seed = $first; $seed < $first + $count; ++$seed) {
    $dice = new Random\Randomizer(new Random\Engine\Xoshiro256StarStar(9000 + $seed));
    $one = static fn (): float => $dice->getInt(0, 1_000_000) / 1e6;
    $length = 200.0 * 75.0 ** $one();
    $bearing = 2.0 * \M_PI * $one();
    $isMoved = $one() < 0.1;
    $rover = Horizon::of($base)->shifted($base, $length * sin($bearing), $length * cos($bearing), 60.0 * ($one() - 0.5));
    $interval = [10.0, 15.0, 30.0][$dice->getInt(0, 2)];
    $epochs = (int) ((900.0 + 2700.0 * $one()) / $interval);
    $sky = new Sky($seed, systems: $one() < 0.5 ? 'G' : 'GE');
    $types = $one() < 0.8 ? Receiver::EVERYTHING : ['G' => ['C1C', 'L1C', 'S1C'], 'E' => ['C1C', 'L1C', 'S1C']];
    $tree = 360.0 * $one();
    $shift = [0.02, 0.05, 0.19, 0.3][$dice->getInt(0, 3)];
    $there = Horizon::of($rover)->shifted($rover, $shift, 0.3 * $shift, -0.1 * $shift);
    $at = $dice->getInt(intdiv($epochs, 4), intdiv(3 * $epochs, 4));
    $ids = array_keys($sky->satellites);
    $slips = [$ids[$dice->getInt(0, count($ids) - 1)] => $dice->getInt(3, $epochs - 2)];
    $r = new Receiver(
        'R', $isMoved ? static fn (int $k): array => $k < $at ? $rover : $there : $rover, $epochs, $interval, 1e-4 * ($one() - 0.5), $types,
        4.0 + 1e-6 * $length * ($one() - 0.5) * 3.0, slips: $slips, obstructed: [[$tree, $tree + 90.0, 45.0 * $one()]],
    );
    $b = new Receiver('B', $base, $epochs, $interval, 1e-4 * ($one() - 0.5), $types);
    $session = SessionOf::of(
        ObservationReader::read($sky->observations($b), 'b'), ObservationReader::read($sky->observations($r), 'r'), 'b', 'r',
    );
    $processor = new BaselineProcessor(
        $session, new Orbits(NavigationReader::read($sky->navigation(), 'n')->ephemerides), null, new Options(deg2rad(10.0)),
    );
    $solution = $processor->run(BaselineProcessor::STATIC, $base, true)[0];
    $off = Horizon::distance($solution->rover, $rover);
    $q = $solution->covariance;
    $sigma = sqrt($q[0][0] + $q[1][1] + $q[2][2]);
    ++$tally[$solution->solution];
    if ($isMoved) {
        if ('fixed' === $solution->solution && 3.0 * $sigma < $shift / 2.0) {
            ++$tally['moved fixed'];
            fprintf(
                \STDERR, "seed %d: moved by %.2f m at %d of %d, fixed with ratio %.1f, rms %.1f mm, sigma %.1f mm\n", $seed, $shift, $at,
                $epochs, $solution->ratio, 1000 * $solution->rms, 1000 * $sigma,
            );
        }
        continue;
    }
    if ('fixed' === $solution->solution && $off > 0.05 + 3e-6 * $length) {
        ++$tally['wrong'];
    }
    if ($off > 3.0 * $sigma) {
        ++$tally['beyond'];
    }
    if ($off > 3.0 * $sigma || 'fixed' === $solution->solution && $off > 0.03 + 2e-6 * $length) {
        fprintf(
            \STDERR, "seed %d: %s, %.1f km, %d epochs at %.0f s, ratio %.1f, off %.0f mm, sigma %.0f mm\n", $seed, $solution->solution,
            $length / 1000.0, $epochs, $interval, $solution->ratio, 1000.0 * $off, 1000.0 * $sigma,
        );
    }
}
printf(
    "%d sessions of 200 m to 15 km, 15 to 60 min, in %.0f s: %s\n", $count, microtime(true) - $began,
    json_encode($tally),
);
