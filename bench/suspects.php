<?php

declare(strict_types=1);

// Suspects on seeded simulated networks with one planted cause each, and on clean ones: how often the right cause comes first.

use Mensura\Network\Adjustment;
use Mensura\Network\Suspects\SuspectSearch;
use Mensura\Tests\Network\PlantedCause;
use Mensura\Tests\Network\SimulatedNetwork;

require __DIR__.'/../vendor/autoload.php';

$count = (int) ($argv[1] ?? 200);
$first = $three = $estimates = $estimated = $planted = 0;
$missed = [];
$begin = microtime(true);
for ($seed = 1; $planted < $count; ++$seed) {
    $network = new SimulatedNetwork($seed);
    $cause = PlantedCause::in($network, PlantedCause::CAUSES[$seed % count(PlantedCause::CAUSES)], $seed);
    if (null === $cause) {
        continue;
    }
    ++$planted;
    $adjustment = new Adjustment($network->definition());
    $suspects = (new SuspectSearch($adjustment->solved($adjustment->run())))->best();
    $place = null;
    foreach ($suspects as $k => $suspect) {
        if ($cause->isNamedBy($suspect)) {
            $place = $k;
            break;
        }
    }
    $first += 0 === $place ? 1 : 0;
    $three += null !== $place && $place < 3 ? 1 : 0;
    if (null !== $place && null !== $cause->estimate && null !== $suspects[$place]->estimate) {
        ++$estimated;
        $off = abs(abs($suspects[$place]->estimate) - abs($cause->estimate));
        $estimates += $off <= 4.0 * ($suspects[$place]->sd ?? 0.01) ? 1 : 0;
    }
    if (0 !== $place) {
        $missed[] = sprintf(
            '%s of network %d: place %s; first was %s', $cause->cause, $seed, null === $place ? '-' : $place + 1,
            $suspects[0]->cause ?? '-',
        );
    }
}
$took = microtime(true) - $begin;
$above = 0;
$largest = 0.0;
for ($seed = 5001; $seed <= 5000 + intdiv($count, 4); ++$seed) {
    $adjustment = new Adjustment((new SimulatedNetwork($seed))->definition());
    $suspects = (new SuspectSearch($adjustment->solved($adjustment->run())))->best();
    $statistic = abs($suspects[0]->statistic ?? 0.0);
    $largest = max($largest, $statistic);
    $above += $statistic > 4.5 ? 1 : 0;
}
printf("suspects, %d networks with one planted cause: first %.1f %%, within three %.1f %%, estimates within 4 sd %.1f %%; %.0f ms each\n",
    $planted, 100 * $first / $planted, 100 * $three / $planted, 100 * $estimates / max(1, $estimated), 1e3 * $took / $planted);
printf("clean networks: %d of %d above 4.5, the largest %.2f\n", $above, intdiv($count, 4), $largest);
foreach ($missed as $line) {
    echo "  $line\n";
}
