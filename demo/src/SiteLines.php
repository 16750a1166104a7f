<?php

declare(strict_types=1);

namespace Demo;

use Mensura\Exchange\Dxf\DxfWriter;

/** Lines of the works as a designer drew them: kerbs and drains in space, the fence, and the limit of the works. */
final class SiteLines
{
    public const FILE = 'site-lines.dxf';
    public const LAYERS = ['WORKS-LIMIT', 'KERB', 'DRAIN', 'FENCE'];

    public function design(): string
    {
        $dxf = new DxfWriter();
        foreach (self::LAYERS as $i => $layer) {
            $dxf->layer($layer, 1 + $i);
        }
        [$e, $n] = [Heap::EAST, Heap::NORTH];
        $limit = [[$e - 46.0, $n - 40.0], [$e + 44.0, $n - 44.0], [$e + 50.0, $n + 38.0], [$e - 40.0, $n + 42.0], [$e - 46.0, $n - 40.0]];
        $dxf->polyline3d('WORKS-LIMIT', array_map(static fn (array $p): array => [$p[0], $p[1], 230.0], $limit));
        // Two kerbs of a lane that climbs past the heap on a bend, and the drain beside it.
        foreach (['KERB' => [-34.0, -40.0], 'DRAIN' => [-37.0]] as $layer => $sides) {
            foreach ($sides as $side) {
                $line = [];
                for ($k = 0; $k <= 12; ++$k) {
                    $along = -34.0 + 6.0 * $k;
                    $height = 230.4 + 0.012 * $along - ('DRAIN' === $layer ? 0.8 : 0.0);
                    $line[] = [round($e + $side + 0.0018 * $along * $along, 3), round($n + $along, 3), round($height, 3)];
                }
                $dxf->polyline3d($layer, $line);
            }
        }
        $dxf->polyline3d('DRAIN', [[$e - 31.0, $n - 32.0, 229.20], [$e - 4.0, $n - 34.0, 229.05], [$e + 34.0, $n - 33.0, 228.86]]);
        $dxf->polyline3d('FENCE', [[$e + 32.0, $n - 40.0, 230.0], [$e + 36.0, $n, 230.0], [$e + 34.0, $n + 34.0, 230.0]]);
        $path = (string) tempnam(sys_get_temp_dir(), 'lines');
        $dxf->save($path);
        $text = (string) file_get_contents($path);
        unlink($path);

        return $text;
    }
}
