<?php

declare(strict_types=1);

/* A photo flight in the core, told so that every digit shows. */

use Demo\Flight\FlightScene;
use Mensura\Flight\ElevationModel;
use Mensura\Flight\FlightBlock;
use Mensura\Flight\OrientedImages;
use Mensura\Matching\Features;
use Mensura\Matching\GreyImage;
use Mensura\Matching\TiePoints;
use Mensura\Rays\ImageRays;
use Mensura\Rays\RayMatch;

require __DIR__.'/../../config/jit.php';
require __DIR__.'/../../vendor/autoload.php';

echo ($jit = opcache_get_status(false)) && $jit['jit']['on'] ? "jit on\n" : "jit off\n";
$say = static function (string $what, mixed $value): void {
    echo "== $what -> 0\n".json_encode($value, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)."\n";
};
$scene = new FlightScene(493800.0, 6028300.0, 231.0);
$grey = $features = [];
foreach ([6, 7, 8] as $i) {
    $grey[$i] = GreyImage::of(FlightScene::WIDTH, FlightScene::HEIGHT, $scene->render($i));
    $features[] = $found = Features::of($grey[$i], 200);
    $say("features $i", [$found->x, $found->y, array_slice($found->descriptors, 0, 1280)]);
}
$points = new TiePoints($features);
foreach ([[0, 1], [1, 2], [0, 2]] as [$a, $b]) {
    $points->join($a, $b, FlightScene::SAID, FlightScene::SAID);
}
$say('tie points', $tracks = $points->tracks());
$truth = array_values(array_intersect_key($scene->truth, $grey));
$block = new FlightBlock(
    FlightScene::SAID, [0], ['a', 'b', 'c'], array_column($truth, 0), [0.8, 0.8, 1.2], [null, null, null], $tracks, [],
);
$adjusted = $block->adjust(false, null);
$say('block', [$adjusted->result->cameras, $adjusted->result->positions, $adjusted->result->rotations, $adjusted->result->places]);
$images = new OrientedImages(
    FlightScene::CAMERA, array_combine(array_keys($grey), array_column($truth, 0)),
    array_combine(array_keys($grey), array_column($truth, 1)), FlightScene::WIDTH, FlightScene::HEIGHT,
);
$model = ElevationModel::of($images, $grey, [493792.0, 6028292.0, 493806.0, 6028304.0], [228.0, 238.0], 1.0);
$say('heights', [$model->h, $model->score]);
$rays = new ImageRays($images);
$match = new RayMatch($rays, static function (int $i) use ($grey): GdImage {
    $gd = imagecreatetruecolor(FlightScene::WIDTH, FlightScene::HEIGHT);
    foreach ($grey[$i]->v as $k => $v) {
        imagesetpixel($gd, $k % FlightScene::WIDTH, intdiv($k, FlightScene::WIDTH), 0x10101 * (int) $v);
    }

    return $gd;
});
$found = $match->find(7, 240.0, 180.0, [50.0, 68.0]);
$say('found', [$found, $rays->meet([[7, 240.0, 180.0], ...array_map(static fn (array $f): array => [$f[0], $f[1], $f[2]], $found)])]);
