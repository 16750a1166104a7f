<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;

/** PLY 1.0 as binary of little-endian doubles: points as vertices, faces with corners of their own joined where they are the same. */
final class PlyWriter implements FeatureWriter
{
    public function write(FeatureSet $set, string $path): array
    {
        $lost = new Lost();
        $kept = $lost->only($set, [Feature::POINT, Feature::FACE], 'PLY');
        $lost->properties($set, []);
        $vertices = $faces = '';
        $count = $faceCount = 0;
        $number = [];
        foreach ($kept as $f) {
            foreach ($f->parts as $rings) {
                $corners = [];
                foreach (Feature::POINT === $f->kind ? $rings[0] : \array_slice($rings[0], 0, -1) as [$x, $y, $h]) {
                    if (null === $h) {
                        $lost->count('missing heights, written as 0');
                    }
                    $bytes = pack('e3', $x, $y, $h ?? 0.0);
                    if (Feature::POINT === $f->kind || !isset($number[$bytes])) {
                        $number[$bytes] ??= $count;
                        $vertices .= $bytes;
                        $corners[] = $count++;
                    } else {
                        $corners[] = $number[$bytes];
                    }
                }
                if (Feature::FACE === $f->kind) {
                    $faces .= pack('CV*', \count($corners), ...$corners);
                    ++$faceCount;
                }
            }
        }
        $head = "ply\nformat binary_little_endian 1.0\nelement vertex $count\nproperty double x\nproperty double y\nproperty double z\n";
        $head .= $faceCount > 0 ? "element face $faceCount\nproperty list uchar uint vertex_indices\n" : '';
        file_put_contents($path, $head."end_header\n".$vertices.$faces);
        if (null !== $set->crs) {
            $lost->say("the coordinate system $set->crs");
        }

        return $lost->all();
    }
}
