<?php

declare(strict_types=1);

namespace Batch\Cloud;

use Mensura\Cloud\Crop;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureReader;
use Mensura\Fault\UnusableInput;

/** Polygons of a GeoJSON file, in the coordinates of the cloud. */
final class CropFile
{
    /** @throws UnusableInput */
    public static function read(string $path): Crop
    {
        $areas = [];
        foreach (FeatureReader::of($path, $path)->set->features as $f) {
            if (Feature::POLYGON !== $f->kind) {
                continue;
            }
            foreach ($f->parts as $rings) {
                $areas[] = array_map(
                    static fn (array $ring): array => array_map(static fn (array $p): array => [$p[0], $p[1]], $ring), $rings,
                );
            }
        }

        return [] !== $areas ? Crop::areas($areas) : throw new UnusableInput($path, 'holds no polygon to crop by');
    }
}
