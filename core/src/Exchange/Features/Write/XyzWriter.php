<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;

/** Lines of three numbers: easting, northing, height. */
final class XyzWriter implements FeatureWriter
{
    public function write(FeatureSet $set, string $path): array
    {
        $lost = new Lost();
        $points = $lost->only($set, [Feature::POINT], 'a file of coordinates');
        $lost->properties($set, []);
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        foreach ($points as $f) {
            foreach ($f->parts as [[[$x, $y, $h]]]) {
                if (null === $h) {
                    $lost->count('missing heights, written as 0');
                }
                fwrite($file, Plain::number($x).' '.Plain::number($y).' '.Plain::number($h ?? 0.0)."\n");
            }
        }
        fclose($file);
        if (null !== $set->crs) {
            $lost->say("the coordinate system $set->crs");
        }

        return $lost->all();
    }
}
