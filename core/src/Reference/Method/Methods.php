<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Crs\Conversion;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Projection;
use Mensura\Reference\UnsupportedMethod;

/**
 * The projection methods by EPSG code: their names, the parameters each takes, and the projection each makes.
 * Names and codes from the EPSG registry; "Latitude of ..." values in radians, false values in metres.
 */
final class Methods
{
    public const PARAMETERS = [
        8801 => 'Latitude of natural origin', 8802 => 'Longitude of natural origin', 8805 => 'Scale factor at natural origin',
        8806 => 'False easting', 8807 => 'False northing', 8811 => 'Latitude of projection centre',
        8812 => 'Longitude of projection centre',
        8813 => 'Azimuth of initial line', 8814 => 'Angle from Rectified to Skew Grid', 8815 => 'Scale factor on initial line',
        8816 => 'Easting at projection centre', 8817 => 'Northing at projection centre', 8818 => 'Latitude of pseudo standard parallel',
        8819 => 'Scale factor on pseudo standard parallel', 8821 => 'Latitude of false origin', 8822 => 'Longitude of false origin',
        8823 => 'Latitude of 1st standard parallel', 8824 => 'Latitude of 2nd standard parallel', 8826 => 'Easting at false origin',
        8827 => 'Northing at false origin', 8830 => 'Initial longitude', 8831 => 'Zone width', 8832 => 'Latitude of standard parallel',
        8833 => 'Longitude of origin', 1036 => 'Co-latitude of cone axis', 1038 => 'Ellipsoid scaling factor',
        1039 => 'Projection plane origin height',
    ];

    private const NATURAL = [8801, 8802, 8805, 8806, 8807];
    private const UNSCALED = [8801, 8802, 8806, 8807];
    private const FALSE_ORIGIN = [8821, 8822, 8823, 8824, 8826, 8827];
    private const KROVAK = [8811, 8833, 1036, 8818, 8819, 8806, 8807];

    /** Code => name, parameters in the registry's order. */
    public const METHODS = [
        9807 => ['Transverse Mercator', self::NATURAL],
        9808 => ['Transverse Mercator (South Orientated)', self::NATURAL],
        9824 => ['Transverse Mercator Zoned Grid System', [8801, 8830, 8831, 8805, 8806, 8807]],
        9801 => ['Lambert Conic Conformal (1SP)', self::NATURAL],
        9802 => ['Lambert Conic Conformal (2SP)', self::FALSE_ORIGIN],
        9803 => ['Lambert Conic Conformal (2SP Belgium)', self::FALSE_ORIGIN],
        9826 => ['Lambert Conic Conformal (West Orientated)', self::NATURAL],
        1051 => ['Lambert Conic Conformal (2SP Michigan)', [8821, 8822, 8823, 8824, 8826, 8827, 1038]],
        9812 => ['Hotine Oblique Mercator (variant A)', [8811, 8812, 8813, 8814, 8815, 8806, 8807]],
        9815 => ['Hotine Oblique Mercator (variant B)', [8811, 8812, 8813, 8814, 8815, 8816, 8817]],
        9809 => ['Oblique Stereographic', self::NATURAL],
        9810 => ['Polar Stereographic (variant A)', self::NATURAL],
        9829 => ['Polar Stereographic (variant B)', [8832, 8833, 8806, 8807]],
        9830 => ['Polar Stereographic (variant C)', [8832, 8833, 8826, 8827]],
        9806 => ['Cassini-Soldner', self::UNSCALED],
        9833 => ['Hyperbolic Cassini-Soldner', self::UNSCALED],
        9819 => ['Krovak', self::KROVAK],
        1041 => ['Krovak (North Orientated)', self::KROVAK],
        9822 => ['Albers Equal Area', self::FALSE_ORIGIN],
        9820 => ['Lambert Azimuthal Equal Area', self::UNSCALED],
        9804 => ['Mercator (variant A)', self::NATURAL],
        9805 => ['Mercator (variant B)', [8823, 8802, 8806, 8807]],
        9818 => ['American Polyconic', self::UNSCALED],
        9827 => ['Bonne', self::UNSCALED],
        9828 => ['Bonne (South Orientated)', self::UNSCALED],
        9811 => ['New Zealand Map Grid', self::UNSCALED],
        9835 => ['Lambert Cylindrical Equal Area', [8823, 8802, 8806, 8807]],
        9840 => ['Orthographic', self::UNSCALED],
        1024 => ['Popular Visualisation Pseudo Mercator', self::UNSCALED],
        1052 => ['Colombia Urban', [8801, 8802, 8806, 8807, 1039]],
    ];

    /** Parameters that are lengths; scales are 8805, 8815, 8819 and 1038; the others are angles. */
    public const LENGTHS = [8806, 8807, 8816, 8817, 8826, 8827, 1039];
    public const SCALES = [8805, 8815, 8819, 1038];

    /**
     * @throws UnsupportedMethod
     * @throws OutsideProjection when the parameters make no projection
     */
    public static function projection(Conversion $conversion, Ellipsoid $el): Projection
    {
        $known = self::METHODS[$conversion->method] ?? throw new UnsupportedMethod(\sprintf(
            'the projection method %s (EPSG:%d) is not among those available',
            '' === $conversion->name ? '' : '"'.$conversion->name.'"', $conversion->method,
        ));
        $v = $conversion->values;
        foreach ($known[1] as $code) {
            if (!isset($v[$code])) {
                $v[$code] = match (true) {
                    \in_array($code, self::SCALES, true) => 1.0,
                    1036 === $code => deg2rad(30.28813975277778),
                    default => 0.0,
                };
            }
            if (!is_finite($v[$code])) {
                throw new OutsideProjection(\sprintf('%s is not a number', self::PARAMETERS[$code]));
            }
            if (\in_array($code, self::SCALES, true) && ($v[$code] < 0.1 || $v[$code] > 10.0)) {
                throw new OutsideProjection(\sprintf('%s is %s; a scale factor lies near 1', self::PARAMETERS[$code], $v[$code]));
            }
            if (str_starts_with(self::PARAMETERS[$code], 'Latitude') && abs($v[$code]) > \M_PI_2 + 1e-9) {
                throw new OutsideProjection(\sprintf(
                    '%s is %s degrees; latitudes lie between -90 and 90', self::PARAMETERS[$code],
                    round(rad2deg($v[$code]), 9),
                ));
            }
        }

        return match ($conversion->method) {
            9807 => new TransverseMercator($el, $v[8801], $v[8802], $v[8805], $v[8806], $v[8807]),
            9808 => new Reversed(new TransverseMercator($el, $v[8801], $v[8802], $v[8805], 0.0, 0.0), -$v[8806], -$v[8807]),
            9824 => new ZonedTransverseMercator($el, $v[8801], $v[8830], $v[8831], $v[8805], $v[8806], $v[8807]),
            9801 => Lambert::oneParallel($el, $v[8801], $v[8802], $v[8805], $v[8806], $v[8807]),
            9826 => new Reversed(Lambert::oneParallel($el, $v[8801], $v[8802], $v[8805], 0.0, 0.0), -$v[8806], $v[8807]),
            9802 => Lambert::twoParallels($el, $v[8821], $v[8822], $v[8823], $v[8824], $v[8826], $v[8827]),
            9803 => Lambert::twoParallels($el, $v[8821], $v[8822], $v[8823], $v[8824], $v[8826], $v[8827], Lambert::BELGIAN_TURN),
            1051 => Lambert::twoParallels($el, $v[8821], $v[8822], $v[8823], $v[8824], $v[8826], $v[8827], 0.0, $v[1038]),
            9812 => new ObliqueMercator($el, $v[8811], $v[8812], $v[8813], $v[8814], $v[8815], $v[8806], $v[8807], false),
            9815 => new ObliqueMercator($el, $v[8811], $v[8812], $v[8813], $v[8814], $v[8815], $v[8816], $v[8817], true),
            9809 => new ObliqueStereographic($el, $v[8801], $v[8802], $v[8805], $v[8806], $v[8807]),
            9810 => PolarStereographic::scaled($el, $v[8801] > 0.0, $v[8802], $v[8805], $v[8806], $v[8807]),
            9829 => PolarStereographic::trueAt($el, $v[8832], $v[8833], $v[8806], $v[8807], false),
            9830 => PolarStereographic::trueAt($el, $v[8832], $v[8833], $v[8826], $v[8827], true),
            9806 => new CassiniSoldner($el, $v[8801], $v[8802], $v[8806], $v[8807]),
            9833 => new CassiniSoldner($el, $v[8801], $v[8802], $v[8806], $v[8807], true),
            9819, 1041 => new Krovak($el, $v[8811], $v[8833], $v[1036], $v[8818], $v[8819], $v[8806], $v[8807]),
            9822 => new AlbersEqualArea($el, $v[8821], $v[8822], $v[8823], $v[8824], $v[8826], $v[8827]),
            9820 => new LambertAzimuthalEqualArea($el, $v[8801], $v[8802], $v[8806], $v[8807]),
            9804 => new Mercator($el, $v[8802], $v[8805], $v[8806], $v[8807]),
            9805 => Mercator::trueAt($el, $v[8823], $v[8802], $v[8806], $v[8807]),
            9818 => new AmericanPolyconic($el, $v[8801], $v[8802], $v[8806], $v[8807]),
            9827 => new Bonne($el, $v[8801], $v[8802], $v[8806], $v[8807]),
            9828 => new Reversed(new Bonne($el, $v[8801], $v[8802], 0.0, 0.0), -$v[8806], -$v[8807]),
            9811 => new NewZealandMapGrid($el, $v[8801], $v[8802], $v[8806], $v[8807]),
            9835 => new CylindricalEqualArea($el, $v[8823], $v[8802], $v[8806], $v[8807]),
            9840 => new Orthographic($el, $v[8801], $v[8802], $v[8806], $v[8807]),
            1024 => new PseudoMercator($el, $v[8802], $v[8806], $v[8807]),
            1052 => new ColombiaUrban($el, $v[8801], $v[8802], $v[8806], $v[8807], $v[1039]),
        };
    }
}
