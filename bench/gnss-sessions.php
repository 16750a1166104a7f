<?php

declare(strict_types=1);

/**
 * Seeded sessions of an invented constellation through the static processor: no wrong integers may be accepted, and stated
 * precisions must cover what is really wrong. Prints figures; asserts nothing. php bench/gnss-sessions.php [COUNT] [FIRST SEED].
 */

use Demo\Gnss\Trial;

require __DIR__.'/../vendor/autoload.php';

$count = (int) ($argv[1] ?? 200);
$first = (int) ($argv[2] ?? 1);
$tally = ['fixed' => 0, 'float' => 0, 'wrong' => 0, 'beyond 3 sigma' => 0, 'moved and dressed up' => 0];
$began = microtime(true);
for ($seed = $first; $seed < $first + $count; ++$seed) {
    $t = Trial::of($seed);
    ++$tally[$t->solution];
    $tally['wrong'] += $t->isWrong() ? 1 : 0;
    $tally['beyond 3 sigma'] += $t->isBeyond() ? 1 : 0;
    $tally['moved and dressed up'] += $t->isDressedUp() ? 1 : 0;
    if ($t->isWrong() || $t->isBeyond() || $t->isDressedUp()) {
        fprintf(
            \STDERR, "seed %d: %s, %.1f km, %d epochs at %.0f s, ratio %.1f, moved %.2f m, off %.0f mm, sigma %.0f mm\n", $seed,
            $t->solution, $t->length / 1000.0, $t->epochs, $t->interval, $t->ratio, $t->moved, 1000.0 * $t->off, 1000.0 * $t->sigma,
        );
    }
}
printf("%d sessions of 200 m to 15 km, 15 to 60 min, in %.0f s: %s\n", $count, microtime(true) - $began, json_encode($tally));
