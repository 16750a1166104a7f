<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features;

use Mensura\Exchange\Faces\FaceFile;

/**
 * Lines and areas of a file of features as a drawing: an area is its rings, each closed. Layers are the codes the features carry, else
 * the layers of the file. Degrees (longitude as x) stay degrees, other units come out in metres; what has no height lies at 0.
 */
final class FeatureLines
{
    public static function of(FeatureSet $set): FaceFile
    {
        $metre = $set->metre();
        $up = $set->isGeographic() ? 1.0 : $metre;
        $coding = $set->coding();
        $x = $y = $z = $lines = $layers = [];
        foreach ($set->features as $f) {
            if (!self::isLine($f)) {
                continue;
            }
            $code = trim((string) ($f->properties[$coding ?? ''] ?? ''));
            foreach ($f->parts as $part) {
                foreach ($part as $places) {
                    $corners = [];
                    foreach ($places as [$e, $n, $h]) {
                        $corners[] = \count($x);
                        $x[] = $e * $metre;
                        $y[] = $n * $metre;
                        $z[] = ($h ?? 0.0) * $up;
                    }
                    $lines[] = $corners;
                    $layers[] = '' === $code ? $f->layer : $code;
                }
            }
        }

        return FaceFile::ofLines($x, $y, $z, $lines, $layers);
    }

    public static function isLine(Feature $f): bool
    {
        return Feature::LINE === $f->kind || Feature::POLYGON === $f->kind;
    }

    /** Whether none of them says a height. */
    public static function areFlat(FeatureSet $set): bool
    {
        foreach ($set->features as $f) {
            if (self::isLine($f) && $f->hasHeights()) {
                return false;
            }
        }

        return true;
    }
}
