<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;

/** LAS 1.2, point format 0 (ASPRS LAS specification 1.2), coordinates to a tenth of a millimetre, the system by its code. */
final class LasWriter implements FeatureWriter
{
    private const SCALE = 0.0001;
    private const DEGREES = 1e-9;

    public function write(FeatureSet $set, string $path): array
    {
        $lost = new Lost();
        $points = $lost->only($set, [Feature::POINT], 'LAS');
        $lost->properties($set, ['class']);
        $places = [];
        foreach ($points as $f) {
            $class = $f->properties['class'] ?? 0;
            foreach ($f->parts as [[[$x, $y, $h]]]) {
                if (null === $h) {
                    $lost->count('missing heights, written as 0');
                }
                $places[] = [$x, $y, $h ?? 0.0, is_numeric($class) ? (int) $class & 31 : 0];
            }
        }
        $plan = $set->isGeographic() ? self::DEGREES : self::SCALE;
        $least = $greatest = $offset = [0.0, 0.0, 0.0];
        foreach ([0, 1, 2] as $k) {
            $axis = array_column($places, $k);
            $least[$k] = [] === $axis ? 0.0 : min($axis);
            $greatest[$k] = [] === $axis ? 0.0 : max($axis);
            $offset[$k] = floor(($least[$k] + $greatest[$k]) / 2.0);
        }
        $scale = [$plan, $plan, self::SCALE];
        $vlr = self::system($set->crs, $set->isGeographic());
        $begin = 227 + \strlen($vlr);
        $count = \count($places);
        $head = 'LASF'.pack('vvVvv', 0, 0, 0, 0, 0).str_repeat("\0", 8).pack('CC', 1, 2).str_pad('mensura', 32, "\0")
            .str_pad('mensura', 32, "\0").pack('vv', 1 + (int) $set->dated('z'), (int) $set->dated('Y'))
            .pack('vVV', 227, $begin, '' === $vlr ? 0 : 1).pack('CvV', 0, 20, $count)
            .pack('V5', $count, 0, 0, 0, 0).pack('e3', ...$scale).pack('e3', ...$offset)
            .pack('e6', $greatest[0], $least[0], $greatest[1], $least[1], $greatest[2], $least[2]);
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        fwrite($file, $head.$vlr);
        foreach ($places as [$x, $y, $z, $class]) {
            $whole = static fn (float $v, int $k): int => (int) round(($v - $offset[$k]) / $scale[$k]) & 0xFFFFFFFF;
            fwrite($file, pack('VVVvCCcCv', $whole($x, 0), $whole($y, 1), $whole($z, 2), 0, 9, $class, 0, 0, 0));
        }
        fclose($file);

        return $lost->all();
    }

    /** GeoTIFF keys: model type, raster type, and the code of the system. */
    public static function system(?string $crs, bool $isGeographic): string
    {
        if (null === $crs || 1 !== preg_match('/^EPSG:(\d{1,5})$/', $crs, $m) || (int) $m[1] > 65535) {
            return '';
        }
        $keys = pack('v12', 1, 1, 0, 2, 1024, 0, 1, $isGeographic ? 2 : 1, $isGeographic ? 2048 : 3072, 0, 1, (int) $m[1]);

        return pack('v', 0).str_pad('LASF_Projection', 16, "\0").pack('vv', 34735, \strlen($keys))
            .str_pad('GeoKeyDirectoryTag', 32, "\0").$keys;
    }
}
