<?php

declare(strict_types=1);

// A million measured points against two hundred thousand triangles, vertically and along the normal: php bench/deviation.php

use Mensura\Deviation\Along;
use Mensura\Deviation\DeviationStatistics;
use Mensura\Deviation\MeshReference;
use Mensura\Mesh\Mesh;

require __DIR__.'/../vendor/autoload.php';

$side = (int) ($argv[1] ?? 317);
$count = (int) ($argv[2] ?? 1000000);
$height = static fn (float $x, float $y): float => 230.0 + 4.0 * sin($x / 40.0) * cos($y / 55.0);
$x = $y = $z = $t = [];
for ($r = 0; $r < $side; ++$r) {
    for ($c = 0; $c < $side; ++$c) {
        $x[] = 493000.0 + $c;
        $y[] = 6028000.0 + $r;
        $z[] = $height((float) $c, (float) $r);
        if ($r > 0 && $c > 0) {
            $i = $r * $side + $c;
            array_push($t, $i - $side - 1, $i - $side, $i, $i - $side - 1, $i, $i - 1);
        }
    }
}
$random = new Random\Randomizer(new Random\Engine\Xoshiro256StarStar(4));
$px = $py = $pz = [];
for ($k = 0; $k < $count; ++$k) {
    $px[] = 493000.0 + $random->getInt(0, 1000000) / 1e6 * ($side - 1);
    $py[] = 6028000.0 + $random->getInt(0, 1000000) / 1e6 * ($side - 1);
    $pz[] = $height($px[$k] - 493000.0, $py[$k] - 6028000.0) + ($random->getInt(0, 200) - 100) / 1000.0;
}
foreach (Along::cases() as $along) {
    $begin = hrtime(true);
    $mesh = Mesh::of($x, $y, $z, $t);
    $joined = (hrtime(true) - $begin) / 1e9;
    $deviations = (new MeshReference($mesh))->deviations($px, $py, $pz, $along);
    $s = new DeviationStatistics($deviations, 0.5, [-0.05, -0.01, 0.01, 0.05]);
    printf(
        "%s: %d points against %d faces in %.1f s (joining the faces %.1f s), %d used, rms %.4f m, %.0f MB\n", $along->value, $count,
        $mesh->faceCount(), (hrtime(true) - $begin) / 1e9, $joined, $s->used, (float) $s->rms, memory_get_peak_usage() / 1e6,
    );
}
