<?php

declare(strict_types=1);

namespace Mensura\Reference\Text;

use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\UnsupportedMethod;

/** Horizontal systems as PROJ strings; the datum is carried by its ellipsoid and, when the definition has one, by towgs84. */
final class ProjStringWriter
{
    /** @throws UnsupportedMethod when the notation cannot say the method */
    public static function write(HorizontalSystem $system): string
    {
        $el = $system->ellipsoid();
        $words = match ($system->kind) {
            HorizontalSystem::GEOGRAPHIC => ['proj' => 'longlat'],
            HorizontalSystem::GEOCENTRIC => ['proj' => 'geocent'],
            default => self::projection($system),
        };
        $words['a'] = self::number($el->a);
        $words[is_infinite($el->inverseFlattening) ? 'b' : 'rf'] = self::number(
            is_infinite($el->inverseFlattening) ? $el->a : $el->inverseFlattening,
        );
        if (1051 === $system->conversion?->method) {
            $words['a'] = self::number($el->a * ($system->conversion->values[1038] ?? 1.0));
        }
        if (null !== $system->binding?->helmert) {
            $h = $system->binding->helmert;
            $s = 648000.0 / \M_PI;
            $words['towgs84'] = implode(',', array_map(
                self::number(...),
                [...$h->translation, $h->rotation[0] * $s, $h->rotation[1] * $s, $h->rotation[2] * $s, $h->scale * 1e6],
            ));
        } elseif (null !== $system->binding) {
            $words['nadgrids'] = implode(',', $system->binding->grids);
        } elseif ('EPSG:6326' === $system->datum->code) {
            unset($words['a'], $words['rf']);
            $words['datum'] = 'WGS84';
        }
        if (0.0 !== $system->datum->primeMeridian) {
            $words['pm'] = self::number($system->datum->primeMeridian);
        }
        if (HorizontalSystem::GEOGRAPHIC !== $system->kind) {
            $words[1.0 === $system->unit ? 'units' : 'to_meter'] = 1.0 === $system->unit ? 'm' : self::number($system->unit);
        }
        $text = '';
        foreach ($words as $name => $value) {
            $text .= '' === $value ? "+$name " : "+$name=$value ";
        }

        return $text.'+no_defs +type=crs';
    }

    /** @return array<string, string> */
    private static function projection(HorizontalSystem $system): array
    {
        $conversion = $system->conversion ?? throw new \LogicException('A projected system has a conversion.');
        $v = $conversion->values;
        $deg = static fn (int $code): string => self::number(rad2deg($v[$code] ?? 0.0));
        $num = static fn (int $code, float $default = 0.0): string => self::number($v[$code] ?? $default);
        $natural = ['lat_0' => $deg(8801), 'lon_0' => $deg(8802), 'k_0' => $num(8805, 1.0), 'x_0' => $num(8806), 'y_0' => $num(8807)];
        $plain = ['lat_0' => $deg(8801), 'lon_0' => $deg(8802), 'x_0' => $num(8806), 'y_0' => $num(8807)];
        $conic = [
            'lat_0' => $deg(8821), 'lon_0' => $deg(8822), 'lat_1' => $deg(8823), 'lat_2' => $deg(8824),
            'x_0' => $num(8826), 'y_0' => $num(8827),
        ];
        $reversed = ['x_0' => self::number(-($v[8806] ?? 0.0)), 'y_0' => self::number(-($v[8807] ?? 0.0))];

        return match ($conversion->method) {
            9807 => ['proj' => 'tmerc'] + $natural,
            9808 => ['proj' => 'tmerc', 'axis' => 'wsu'] + $reversed + $natural,
            9801 => ['proj' => 'lcc', 'lat_1' => $deg(8801)] + $natural,
            9802, 1051 => ['proj' => 'lcc'] + $conic,
            9822 => ['proj' => 'aea'] + $conic,
            9812 => [
                'proj' => 'omerc', 'no_uoff' => '', 'lat_0' => $deg(8811), 'lonc' => $deg(8812),
                'alpha' => $deg(8813), 'gamma' => $deg(8814), 'k' => $num(8815, 1.0), 'x_0' => $num(8806),
                'y_0' => $num(8807),
            ],
            9815 => abs(($v[8813] ?? 0.0) - \M_PI_2) < 1e-10 && abs(($v[8814] ?? 0.0) - \M_PI_2) < 1e-10
                ? [
                    'proj' => 'somerc', 'lat_0' => $deg(8811), 'lon_0' => $deg(8812), 'k_0' => $num(8815, 1.0),
                    'x_0' => $num(8816), 'y_0' => $num(8817),
                ]
                : [
                    'proj' => 'omerc', 'lat_0' => $deg(8811), 'lonc' => $deg(8812), 'alpha' => $deg(8813),
                    'gamma' => $deg(8814), 'k' => $num(8815, 1.0), 'x_0' => $num(8816), 'y_0' => $num(8817),
                ],
            9809 => ['proj' => 'sterea'] + $natural,
            9810 => ['proj' => 'stere'] + $natural,
            9829 => [
                'proj' => 'stere', 'lat_0' => ($v[8832] ?? 0.0) < 0.0 ? '-90' : '90', 'lat_ts' => $deg(8832),
                'lon_0' => $deg(8833), 'x_0' => $num(8806), 'y_0' => $num(8807),
            ],
            9806 => ['proj' => 'cass'] + $plain,
            9833 => ['proj' => 'cass', 'hyperbolic' => ''] + $plain,
            9819, 1041 => [
                'proj' => 'krovak', 'lat_0' => $deg(8811), 'lon_0' => $deg(8833), 'alpha' => $deg(1036),
                'k' => $num(8819, 0.9999), 'x_0' => self::number(-($v[8806] ?? 0.0)),
                'y_0' => self::number(-($v[8807] ?? 0.0)),
            ],
            9820 => ['proj' => 'laea'] + $plain,
            9804 => ['proj' => 'merc'] + $natural,
            9805 => ['proj' => 'merc', 'lat_ts' => $deg(8823), 'lon_0' => $deg(8802), 'x_0' => $num(8806), 'y_0' => $num(8807)],
            9818 => ['proj' => 'poly'] + $plain,
            9827 => ['proj' => 'bonne', 'lat_1' => $deg(8801)] + $plain,
            9811 => ['proj' => 'nzmg'] + $plain,
            9835 => ['proj' => 'cea', 'lat_ts' => $deg(8823), 'lon_0' => $deg(8802), 'x_0' => $num(8806), 'y_0' => $num(8807)],
            9840 => ['proj' => 'ortho'] + $plain,
            1024 => ['proj' => 'webmerc'] + $plain,
            1052 => ['proj' => 'col_urban', 'h_0' => $num(1039)] + $plain,
            default => throw new UnsupportedMethod(\sprintf('a PROJ string cannot say the method EPSG:%d; use WKT2', $conversion->method)),
        };
    }

    private static function number(float $value): string
    {
        $text = rtrim(rtrim(\sprintf('%.14F', $value), '0'), '.');

        return '-0' === $text ? '0' : $text;
    }
}
