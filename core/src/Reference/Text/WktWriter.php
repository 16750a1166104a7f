<?php

declare(strict_types=1);

namespace Mensura\Reference\Text;

use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Crs\VerticalSystem;
use Mensura\Reference\Method\Methods;

/** Coordinate systems as WKT2 (ISO 19162:2019). */
final class WktWriter
{
    public static function write(CoordinateSystem $system): string
    {
        if (null === $system->vertical) {
            return self::horizontal($system->horizontal)."\n";
        }

        return \sprintf(
            "COMPOUNDCRS[%s,\n%s,\n%s]\n", self::quote($system->name()),
            self::indent(self::horizontal($system->horizontal)), self::indent(self::vertical($system->vertical)),
        );
    }

    private static function horizontal(HorizontalSystem $system): string
    {
        $plain = HorizontalSystem::PROJECTED === $system->kind ? self::projected($system) : self::geodetic(
            $system, HorizontalSystem::GEOCENTRIC === $system->kind ? 'GEODCRS' : 'GEOGCRS', true,
        );
        if (null === $system->binding?->helmert) {
            return $plain;
        }
        $h = $system->binding->helmert;
        $seconds = static fn (float $radians): string => self::number(rad2deg($radians) * 3600.0);
        $parameters = [];
        foreach ([
            ['X-axis translation', 8605, self::number($h->translation[0])],
            ['Y-axis translation', 8606, self::number($h->translation[1])],
            ['Z-axis translation', 8607, self::number($h->translation[2])],
            ['X-axis rotation', 8608, $seconds($h->rotation[0])],
            ['Y-axis rotation', 8609, $seconds($h->rotation[1])],
            ['Z-axis rotation', 8610, $seconds($h->rotation[2])],
            ['Scale difference', 8611, self::number(1.0 + $h->scale)],
        ] as [$name, $code, $value]) {
            $parameters[] = \sprintf('PARAMETER["%s",%s,ID["EPSG",%d]]', $name, $value, $code);
        }

        return \sprintf(
            "BOUNDCRS[\n  SOURCECRS[\n%s],\n  TARGETCRS[\n    GEOGCRS[\"WGS 84\",\n      DATUM[\"World Geodetic System "
                ."1984\",\n        ELLIPSOID[\"WGS "
                    ."84\",6378137,298.257223563,LENGTHUNIT[\"metre\",1]],ID[\"EPSG\",6326]],\n      "
                        ."CS[ellipsoidal,2],\n        AXIS[\"geodetic latitude (Lat)\",north],\n        AXIS[\"geodetic "
                            ."longitude (Lon)\",east],\n        ANGLEUNIT[\"degree\",0.0174532925199433],\n      "
                                ."ID[\"EPSG\",4326]]],\n  ABRIDGEDTRANSFORMATION[%s,\n    METHOD[\"Position Vector "
                                    ."transformation (geog2D domain)\",ID[\"EPSG\",9606]],\n    %s]]",
            self::indent(self::indent($plain)), self::quote('Transformation stated with '.$system->name), implode(",\n    ", $parameters),
        );
    }

    private static function geodetic(HorizontalSystem $system, string $keyword, bool $whole): string
    {
        $datum = $system->datum;
        $el = $datum->ellipsoid;
        $name = HorizontalSystem::PROJECTED === $system->kind
            ? ('' === $system->geodeticName ? $datum->name : $system->geodeticName)
            : $system->name;
        $lines = [
            \sprintf('%s[%s,', $keyword, self::quote($name)),
            \sprintf('  DATUM[%s,', self::quote($datum->name)),
            \sprintf(
                '    ELLIPSOID[%s,%s,%s,LENGTHUNIT["metre",1]]%s],', self::quote($el->name), self::number($el->a),
                is_infinite($el->inverseFlattening) ? '0' : self::number($el->inverseFlattening),
                self::id($datum->code),
            ),
            \sprintf(
                '  PRIMEM[%s,%s,ANGLEUNIT["degree",0.0174532925199433]]', self::quote($datum->primeMeridianName),
                self::number($datum->primeMeridian),
            ),
        ];
        if ($whole) {
            $lines[3] .= ',';
            if (HorizontalSystem::GEOCENTRIC === $system->kind) {
                array_push(
                    $lines, '  CS[Cartesian,3],', '    AXIS["(X)",geocentricX],', '    AXIS["(Y)",geocentricY],',
                    '    AXIS["(Z)",geocentricZ],', '    LENGTHUNIT["metre",1]',
                );
            } else {
                array_push(
                    $lines,
                    \sprintf('  CS[ellipsoidal,%d],', $system->dimension),
                    '    AXIS["geodetic latitude (Lat)",north,ANGLEUNIT["degree",0.0174532925199433]],',
                    '    AXIS["geodetic longitude (Lon)",east,ANGLEUNIT["degree",0.0174532925199433]]'
                        .(3 === $system->dimension ? ',' : ''),
                );
                if (3 === $system->dimension) {
                    $lines[] = '    AXIS["ellipsoidal height (h)",up,LENGTHUNIT["metre",1]]';
                }
            }
            $lines[\count($lines) - 1] .= self::id($system->code).']';
        } else {
            $lines[3] .= self::id($system->geodetic).']';
        }

        return implode("\n", $lines);
    }

    private static function projected(HorizontalSystem $system): string
    {
        $conversion = $system->conversion ?? throw new \LogicException('A projected system has a conversion.');
        [$method, $parameters] = Methods::METHODS[$conversion->method];
        $lines = [
            \sprintf('PROJCRS[%s,', self::quote($system->name)),
            self::indent(self::geodetic($system, 'BASEGEOGCRS', false)).',',
            \sprintf('  CONVERSION[%s,', self::quote('' === $conversion->name ? $system->name : $conversion->name)),
            \sprintf('    METHOD[%s,ID["EPSG",%d]]', self::quote($method), $conversion->method),
        ];
        foreach ($parameters as $code) {
            $value = $conversion->values[$code] ?? (\in_array($code, Methods::SCALES, true) ? 1.0 : 0.0);
            [$text, $unit] = match (true) {
                \in_array($code, Methods::LENGTHS, true) => [self::number($value / $system->unit), self::lengthUnit($system)],
                \in_array($code, Methods::SCALES, true) => [self::number($value), 'SCALEUNIT["unity",1]'],
                default => [self::number(rad2deg($value)), 'ANGLEUNIT["degree",0.0174532925199433]'],
            };
            $lines[\count($lines) - 1] .= ',';
            $lines[] = \sprintf('    PARAMETER["%s",%s,%s,ID["EPSG",%d]]', Methods::PARAMETERS[$code], $text, $unit, $code);
        }
        $lines[\count($lines) - 1] .= '],';
        $lines[] = \sprintf('  CS[Cartesian,%d],', $system->dimension);
        $axes = [] === $system->axes ? [['E', 'east'], ['N', 'north']] : array_map(
            static fn ($axis): array => [$axis->abbreviation, $axis->direction], \array_slice($system->axes, 0, 2),
        );
        foreach ($axes as [$abbreviation, $direction]) {
            $lines[] = \sprintf(
                '    AXIS["(%s)",%s,%s],',
                $abbreviation,
                1 === preg_match('/^[a-z]+$/', $direction) ? $direction : (str_starts_with($direction, 'south') ? 'south' : 'north'),
                self::lengthUnit($system),
            );
        }
        if (3 === $system->dimension) {
            $lines[] = '    AXIS["ellipsoidal height (h)",up,LENGTHUNIT["metre",1]],';
        }
        $lines[\count($lines) - 1] = rtrim($lines[\count($lines) - 1], ',');
        if (null !== $system->area && null === $system->code) {
            $area = $system->area;
            $lines[\count($lines) - 1] .= \sprintf(
                ",\n  USAGE[SCOPE[\"Survey.\"],AREA[%s],BBOX[%s,%s,%s,%s]]",
                self::quote('' === $area->name ? 'Not stated' : $area->name), self::number($area->south),
                self::number($area->west), self::number($area->north), self::number($area->east),
            );
        }
        $lines[\count($lines) - 1] .= self::id($system->code).']';

        return implode("\n", $lines);
    }

    private static function vertical(VerticalSystem $system): string
    {
        return \sprintf(
            "VERTCRS[%s,\n  VDATUM[%s%s],\n  CS[vertical,1],\n    AXIS[\"%s\",%s],\n    LENGTHUNIT[%s,%s]%s]",
            self::quote($system->name), self::quote($system->datumName), self::id($system->datum),
            $system->down ? 'depth (D)' : 'gravity-related height (H)', $system->down ? 'down' : 'up',
            self::quote($system->unitName), self::number($system->unit), self::id($system->code),
        );
    }

    private static function lengthUnit(HorizontalSystem $system): string
    {
        return \sprintf('LENGTHUNIT[%s,%s]', self::quote($system->unitName), self::number($system->unit));
    }

    private static function id(?string $code): string
    {
        return null !== $code && 1 === preg_match('/^EPSG:(\d+)$/', $code, $match) ? \sprintf(',ID["EPSG",%d]', $match[1]) : '';
    }

    private static function quote(string $text): string
    {
        return '"'.str_replace('"', '""', $text).'"';
    }

    /** Fifteen significant digits, and no exponent in the range surveying has. */
    private static function number(float $value): string
    {
        $text = \sprintf('%.15G', $value);
        if (str_contains($text, 'E')) {
            $text = rtrim(rtrim(\sprintf('%.20F', $value), '0'), '.');
        }

        return '-0' === $text ? '0' : $text;
    }

    private static function indent(string $text): string
    {
        return '  '.str_replace("\n", "\n  ", $text);
    }
}
