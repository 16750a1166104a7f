<?php

declare(strict_types=1);

namespace Demo\Flight;

use Mensura\Image\Lens;

/** The files of the made-up rover: its images, and for each group where they were taken and how the camera was held. */
final class WallFilesMade
{
    public function __construct(public readonly WallScene $scene, private readonly string $system = 'EPSG:25830')
    {
    }

    /** "barn-front.json" of "barn, front". */
    public static function file(string $group): string
    {
        return self::stem($group).'.json';
    }

    public static function name(string $group, int $image): string
    {
        return \sprintf('%s-%02d.jpg', self::stem($group), $image + 1);
    }

    private static function stem(string $group): string
    {
        return str_replace(', ', '-', $group);
    }

    public function image(string $group, int $image): string
    {
        $gd = imagecreatetruecolor(WallScene::WIDTH, WallScene::HEIGHT);
        foreach ($this->scene->render($group, $image) as $k => $grey) {
            // Old brick: a little red.
            $colour = ((int) min(255, 0.9 * $grey + 26) << 16) | ((int) (0.82 * $grey + 16) << 8) | (int) (0.74 * $grey + 14);
            imagesetpixel($gd, $k % WallScene::WIDTH, intdiv($k, WallScene::WIDTH), $colour);
        }
        ob_start();
        imagejpeg($gd, null, 93);

        return (string) ob_get_clean();
    }

    public function group(string $group): string
    {
        $s = $this->scene;
        [$plan, $up, $tilt, $heading] = WallScene::SD;
        $images = [];
        foreach ($s->truth[$group] as $i => [$p, $angles]) {
            $images[] = [
                'file' => self::name($group, $i), 'e' => round($p[0] + $s->normal($plan), 4), 'n' => round($p[1] + $s->normal($plan), 4),
                'h' => round($p[2] + $s->normal($up), 4), 'omega' => round($angles[0] + $s->normal($tilt), 3),
                'phi' => round($angles[1] + $s->normal($heading), 3), 'kappa' => round($angles[2] + $s->normal($tilt), 3),
            ];
        }

        return json_encode([
            'format' => 'mensura-flight/1', 'name' => $group, 'system' => $this->system, 'heights' => 'ellipsoidal',
            'camera' => ['width' => WallScene::WIDTH, 'height' => WallScene::HEIGHT] + array_combine(Lens::NAMES, WallScene::CAMERA),
            'sd' => ['plan' => $plan, 'up' => $up, 'tilt' => $tilt, 'heading' => $heading], 'distance' => WallScene::DISTANCE,
            'images' => $images,
        ], \JSON_PRETTY_PRINT | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR)."\n";
    }
}
