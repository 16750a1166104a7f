<?php

declare(strict_types=1);

namespace Mensura\Reference\Text;

use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Localization\Localization;
use Mensura\Reference\UnsupportedMethod;

/**
 * The local side of a localization as a derived projected system (WKT2, ISO 19162:2019, DERIVEDPROJCRS) by the
 * similarity transformation of EPSG method 9621: X = X0 + s (x cos t + y sin t), Y = Y0 + s (y cos t - x sin t), with
 * (x, y) on the grid. Only the horizontal part can be said this way.
 */
final class LocalizationWkt
{
    /** @throws UnsupportedMethod when there is a vertical part, or the grid is not projected in metres */
    public static function write(string $name, HorizontalSystem $grid, Localization $l): string
    {
        if (!$grid->isProjected() || 1.0 !== $grid->unit) {
            throw new UnsupportedMethod('a localization is said in WKT2 over a projected system in metres only');
        }
        if ([0.0, 0.0, 0.0] !== $l->plane) {
            throw new UnsupportedMethod(
                'WKT2 has no word for the vertical part of this localization; share it as JSON, or fit without a vertical part',
            );
        }
        [$x0, $y0] = $l->toLocal(0.0, 0.0);
        $base = preg_replace('/^PROJCRS\[/', 'BASEPROJCRS[', rtrim(WktWriter::write(new CoordinateSystem($grid)))) ?? '';
        $base = preg_replace('/,\s*CS\[Cartesian.*$/s', '', $base) ?? '';
        $number = static fn (float $v): string => rtrim(rtrim(\sprintf('%.12F', $v), '0'), '.');

        return \sprintf(
            "DERIVEDPROJCRS[\"%s\",\n  %s%s],\n  DERIVINGCONVERSION[\"localization\",\n    METHOD[\"Similarity "
                ."transformation\",ID[\"EPSG\",9621]],\n    PARAMETER[\"Ordinate 1 of evaluation point in target "
                    ."CRS\",%s,LENGTHUNIT[\"metre\",1],ID[\"EPSG\",8621]],\n    PARAMETER[\"Ordinate 2 of evaluation "
                        ."point in target CRS\",%s,LENGTHUNIT[\"metre\",1],ID[\"EPSG\",8622]],\n    PARAMETER[\"Scale "
                            .'factor for source coordinate reference system '
                                ."axes\",%s,SCALEUNIT[\"unity\",1],ID[\"EPSG\",1061]],\n    PARAMETER[\"Rotation angle "
                                    .'of source coordinate reference system '
                                        ."axes\",%s,ANGLEUNIT[\"degree\",0.0174532925199433],ID[\"EPSG\",8614]]],\n  "
                                            ."CS[Cartesian,2],\n    AXIS[\"local easting (e)\",east],\n    AXIS[\"local "
                                                ."northing (n)\",north],\n    LENGTHUNIT[\"metre\",1]]\n",
            str_replace('"', '""', $name), $base,
            null !== $grid->code ? \sprintf(',ID["EPSG",%s]', substr($grid->code, 5)) : '', $number($x0),
            $number($y0), $number(1.0 / $l->scale), $number(-$l->rotationDegrees),
        );
    }
}
