<?php

declare(strict_types=1);

namespace Demo\Flight;

use Mensura\Image\Lens;

/** The files of the made-up flight: images with what a camera writes into them, the mission, and the control that was put out. */
final class FlightFilesMade
{
    public const MISSION = 'field-flight.json';
    public const CONTROL = 'field-control.csv';
    public const CHECKS = 'field-checks.csv';

    /** Plates laid out, metres from the middle: the corners and the middle are control, the others are held out. */
    private const PLATES = [
        'FP1' => [-36.0, -30.0], 'FP2' => [36.0, -32.0], 'FP3' => [38.0, 30.0], 'FP4' => [-34.0, 32.0], 'FP5' => [-4.0, 2.0],
    ];
    private const HELD_OUT = ['FK1' => [20.0, 10.0], 'FK2' => [-20.0, 15.0], 'FK3' => [6.0, -20.0], 'FK4' => [-14.0, -12.0]];

    /** Pixels a mark set by hand is off. */
    private const MARKED = 0.4;

    public function __construct(public readonly FlightScene $scene, private readonly string $system = 'EPSG:25830')
    {
    }

    public static function name(int $image): string
    {
        return \sprintf('field-%02d.jpg', $image + 1);
    }

    public function image(int $image): string
    {
        $pixels = $this->scene->render($image);
        $gd = imagecreatetruecolor(FlightScene::WIDTH, FlightScene::HEIGHT);
        foreach ($pixels as $k => $grey) {
            // Earth and grass: a little brown where it is dark, green where it is bright.
            $colour = ((int) (0.72 * $grey + 34) << 16) | (min(255, (int) (0.86 * $grey + 24)) << 8) | (int) (0.6 * $grey + 18);
            imagesetpixel($gd, $k % FlightScene::WIDTH, intdiv($k, FlightScene::WIDTH), $colour);
        }
        ob_start();
        imagejpeg($gd, null, 92);

        return (string) ob_get_clean();
    }

    public function mission(): string
    {
        $s = $this->scene;
        $images = [];
        foreach ($s->truth as $i => [$p]) {
            $images[] = [
                'file' => self::name($i), 'e' => round($p[0] + $s->normal(FlightScene::SD[0]), 2),
                'n' => round($p[1] + $s->normal(FlightScene::SD[0]), 2), 'h' => round($p[2] + $s->normal(FlightScene::SD[1]), 2),
                'omega' => 0, 'phi' => 0, 'kappa' => 0 === intdiv($i, 5) % 2 ? 0 : 180,
            ];
        }
        $camera = ['width' => FlightScene::WIDTH, 'height' => FlightScene::HEIGHT] + array_combine(Lens::NAMES, FlightScene::SAID)
            + ['solve' => ['f', 'cx', 'cy', 'k1', 'k2']];

        return json_encode([
            'format' => 'mensura-flight/1', 'name' => 'field, May', 'system' => $this->system, 'heights' => 'ellipsoidal',
            'camera' => $camera, 'sd' => ['plan' => FlightScene::SD[0], 'up' => FlightScene::SD[1]], 'above' => FlightScene::ABOVE,
            'images' => $images,
        ], \JSON_PRETTY_PRINT | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR)."\n";
    }

    public function control(): string
    {
        $lines = ['point,easting [m],northing [m],ellipsoidal height [m],sd e [m],sd n [m],sd h [m]'];
        foreach (array_keys(self::PLATES) as $name) {
            [$e, $n, $h] = $this->plate($name);
            $lines[] = \sprintf('%s,%.3F,%.3F,%.3F,0.010,0.010,0.015', $name, $e, $n, $h);
        }

        return implode("\n", $lines)."\n";
    }

    /** Check points: a control list that states nothing, answered so. */
    public function checks(): string
    {
        $lines = ['point,easting [m],northing [m],ellipsoidal height [m],held'];
        foreach (array_keys(self::HELD_OUT) as $name) {
            [$e, $n, $h] = $this->plate($name);
            $lines[] = \sprintf('%s,%.3F,%.3F,%.3F,', $name, $e, $n, $h);
        }

        return implode("\n", $lines)."\n";
    }

    /** @return array{float, float, float} */
    private function plate(string $name): array
    {
        [$x, $y] = (self::PLATES + self::HELD_OUT)[$name];
        [$e, $n] = [$this->scene->east + $x, $this->scene->north + $y];

        return [$e, $n, $this->scene->height($e, $n)];
    }

    /** @return list<array{point: string, image: string, x: float, y: float}> as somebody clicked them */
    public function marks(): array
    {
        $marks = [];
        foreach (array_keys(self::PLATES + self::HELD_OUT) as $name) {
            foreach (array_keys($this->scene->truth) as $i) {
                $pixel = $this->scene->pixel($i, $this->plate($name));
                if (null !== $pixel) {
                    $marks[] = [
                        'point' => $name, 'image' => self::name($i), 'x' => round($pixel[0] + $this->scene->normal(self::MARKED), 1),
                        'y' => round($pixel[1] + $this->scene->normal(self::MARKED), 1),
                    ];
                }
            }
        }

        return $marks;
    }
}
