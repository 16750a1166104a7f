<?php

declare(strict_types=1);

namespace Mensura\Reference\Text;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\Axis;
use Mensura\Reference\Crs\Conversion;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\Datum;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Crs\VerticalSystem;
use Mensura\Reference\Method\Methods;
use Mensura\Reference\Operation\Binding;
use Mensura\Reference\Operation\Helmert;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\UnsupportedMethod;

/**
 * Coordinate systems from WKT2 (ISO 19162:2019): GEOGCRS, GEODCRS, PROJCRS, VERTCRS in COMPOUNDCRS, BOUNDCRS. The
 * definition rules as written; the registry only lends datum codes, by identifier or by name, so that datum
 * transformations can be found.
 */
final class WktReader
{
    public function __construct(private readonly ?Registry $registry)
    {
    }

    /** @throws UnreadableSystem */
    public function read(string $text): CoordinateSystem
    {
        $node = WktNode::parse(trim($text));
        try {
            return match ($node->keyword) {
                'COMPOUNDCRS' => $this->compound($node),
                'PROJCRS', 'PROJECTEDCRS', 'GEOGCRS', 'GEOGRAPHICCRS', 'GEODCRS', 'GEODETICCRS',
                'BOUNDCRS' => new CoordinateSystem($this->horizontal($node)),
                'VERTCRS', 'VERTICALCRS' => throw new UnreadableSystem('a height system alone does not place anything; give a COMPOUNDCRS'),
                'PROJCS', 'GEOGCS', 'COMPD_CS' => throw new UnreadableSystem(\sprintf(
                    '%s is the older well-known text; give WKT2 (ISO 19162)', $node->keyword,
                )),
                default => throw new UnreadableSystem(\sprintf('%s does not define a coordinate system that is read here', $node->keyword)),
            };
        } catch (OutsideProjection|UnsupportedMethod $e) {
            throw new UnreadableSystem(\sprintf('"%s": %s', $node->name(), $e->getMessage()), 0, $e);
        } catch (\DomainException $e) {
            throw $e instanceof UnreadableSystem ? $e : new UnreadableSystem(\sprintf('"%s": %s', $node->name(), $e->getMessage()), 0, $e);
        }
    }

    private function compound(WktNode $node): CoordinateSystem
    {
        $parts = array_values(array_filter(
            $node->items,
            static fn (mixed $item): bool => $item instanceof WktNode && str_ends_with($item->keyword, 'CRS'),
        ));
        if (2 !== \count($parts)) {
            throw new UnreadableSystem('COMPOUNDCRS must hold a horizontal and a vertical system');
        }
        $code = $node->epsg();

        return new CoordinateSystem(
            $this->horizontal($parts[0]), $this->vertical($parts[1]), $node->name(),
            null === $code ? null : 'EPSG:'.$code,
        );
    }

    private function horizontal(WktNode $node): HorizontalSystem
    {
        return match ($node->keyword) {
            'PROJCRS', 'PROJECTEDCRS' => $this->projected($node),
            'GEOGCRS', 'GEOGRAPHICCRS', 'GEODCRS', 'GEODETICCRS', 'BASEGEOGCRS', 'BASEGEODCRS' => $this->geodetic($node),
            'BOUNDCRS' => $this->bound($node),
            default => throw new UnreadableSystem(\sprintf('%s is not a horizontal system', $node->keyword)),
        };
    }

    private function bound(WktNode $node): HorizontalSystem
    {
        $source = $node->child('SOURCECRS')?->items[0] ?? null;
        $target = $node->child('TARGETCRS')?->items[0] ?? null;
        $abridged = $node->child('ABRIDGEDTRANSFORMATION');
        if (!$source instanceof WktNode || !$target instanceof WktNode || null === $abridged) {
            throw new UnreadableSystem('BOUNDCRS must hold SOURCECRS, TARGETCRS and ABRIDGEDTRANSFORMATION');
        }
        $system = $this->horizontal($source);
        $hub = $this->horizontal($target);
        $hubCode = $hub->geodetic
            ?? throw new UnreadableSystem(\sprintf('the target of BOUNDCRS, "%s", is not in the registry', $hub->name));
        $method = strtolower($abridged->child('METHOD')?->name() ?? '');
        $values = [];
        foreach ($abridged->children('PARAMETER') as $parameter) {
            $code = $parameter->epsg();
            $key = $code ?? match (preg_replace('/[^a-z0-9]/', '', strtolower($parameter->name()))) {
                'xaxistranslation' => 8605, 'yaxistranslation' => 8606, 'zaxistranslation' => 8607,
                'xaxisrotation' => 8608, 'yaxisrotation' => 8609, 'zaxisrotation' => 8610, 'scaledifference' => 8611,
                default => throw new UnreadableSystem(\sprintf(
                    'parameter "%s" of ABRIDGEDTRANSFORMATION is not known', $parameter->name(),
                )),
            };
            $unit = $parameter->child('LENGTHUNIT', 'ANGLEUNIT', 'SCALEUNIT', 'UNIT');
            $value = $parameter->number(1);
            $values[$key] = match (true) {
                null !== $unit
                    && 8611 === $key
                    && 'SCALEUNIT' === $unit->keyword => 'unity' === strtolower($unit->name()) ? $value - 1.0 : $value * $unit->number(1),
                null !== $unit => $value * $unit->number(1),
                // Abridged parameters default to metres, arc-seconds and the scale itself (ISO 19162, 17.2).
                $key >= 8608 && $key <= 8610 => $value * \M_PI / 648000.0,
                8611 === $key => $value - 1.0,
                default => $value,
            };
        }
        $file = $abridged->child('PARAMETERFILE');
        if (null !== $file) {
            $binding = new Binding($hubCode, null, [\is_string($file->items[1] ?? null) ? $file->items[1] : '']);
        } else {
            $sign = str_contains($method, 'coordinate frame') ? -1.0 : 1.0;
            $v = static fn (int $key): float => $values[$key] ?? 0.0;
            $binding = new Binding(
                $hubCode,
                new Helmert([$v(8605), $v(8606), $v(8607)], [$sign * $v(8608), $sign * $v(8609), $sign * $v(8610)], $v(8611)),
            );
        }

        return new HorizontalSystem(
            $system->kind, $system->code, $system->name, $system->datum, $system->geodetic, $system->dimension,
            $system->conversion, $system->projection, $system->unit, $system->unitName, $system->axes, $system->area,
            binding: $binding, geodeticName: $system->geodeticName,
        );
    }

    private function geodetic(WktNode $node): HorizontalSystem
    {
        $datum = $this->datum($node);
        $cs = $node->child('CS');
        $geocentric = 'cartesian' === strtolower($cs?->name() ?? '');
        $dimension = $geocentric ? 3 : (null !== $cs && 3.0 === ($cs->items[1] ?? 2.0) ? 3 : 2);
        $code = $node->epsg();

        return new HorizontalSystem(
            $geocentric ? HorizontalSystem::GEOCENTRIC : HorizontalSystem::GEOGRAPHIC,
            null === $code ? null : 'EPSG:'.$code, $node->name(), $datum,
            $this->geodeticCode($node, $datum), $dimension, unitName: $geocentric ? 'metre' : 'degree',
            axes: self::axes($node), area: self::area($node), geodeticName: $node->name(),
        );
    }

    private function projected(WktNode $node): HorizontalSystem
    {
        $base = $node->child('BASEGEOGCRS', 'BASEGEODCRS') ?? throw new UnreadableSystem('PROJCRS must hold BASEGEOGCRS');
        $geodetic = $this->geodetic($base);
        $conversion = $node->child('CONVERSION') ?? throw new UnreadableSystem('PROJCRS must hold CONVERSION');
        $method = $conversion->child('METHOD', 'PROJECTION') ?? throw new UnreadableSystem('CONVERSION must hold METHOD');
        $methodCode = $method->epsg() ?? self::methodByName($method->name());
        $angleUnit = self::unitOf($base, 'ANGLEUNIT', \M_PI / 180.0);
        $linear = $this->linearUnit($node);
        $values = [];
        foreach ($conversion->children('PARAMETER') as $parameter) {
            $code = $parameter->epsg() ?? self::parameterByName($parameter->name());
            $unit = $parameter->child('ANGLEUNIT', 'LENGTHUNIT', 'SCALEUNIT', 'UNIT');
            $value = $parameter->number(1);
            $values[$code] = match (true) {
                null !== $unit => $value * self::factor($unit),
                \in_array($code, Methods::LENGTHS, true) => $value * $linear[0],
                \in_array($code, Methods::SCALES, true) => $value,
                default => $value * $angleUnit,
            };
        }
        $definition = new Conversion($methodCode, $values, $conversion->name());
        $code = $node->epsg();
        $cs = $node->child('CS');

        return new HorizontalSystem(
            HorizontalSystem::PROJECTED, null === $code ? null : 'EPSG:'.$code, $node->name(), $geodetic->datum,
            $geodetic->geodetic, null !== $cs && 3.0 === ($cs->items[1] ?? 2.0) ? 3 : 2,
            $definition, Methods::projection($definition, $geodetic->ellipsoid()), $linear[0], $linear[1],
            self::axes($node), self::area($node), geodeticName: $geodetic->name,
        );
    }

    private function vertical(WktNode $node): VerticalSystem
    {
        if (!\in_array($node->keyword, ['VERTCRS', 'VERTICALCRS'], true)) {
            throw new UnreadableSystem(\sprintf('the second part of COMPOUNDCRS is %s, not a height system', $node->keyword));
        }
        $datum = $node->child('VDATUM', 'VRF', 'VERTICALDATUM', 'ENSEMBLE');
        [$factor, $unit] = $this->linearUnit($node);
        $down = 'down' === (self::axes($node)[0]->direction ?? 'up');
        $code = $node->epsg();
        $datumCode = $datum?->epsg();
        if (null !== $code && null !== $this->registry && $this->registry->isVertical('EPSG:'.$code)) {
            $datumCode = $this->registry->verticalSystem('EPSG:'.$code)->datum;
        }

        return new VerticalSystem(
            null === $code ? null : 'EPSG:'.$code, $node->name(),
            \is_int($datumCode) ? 'EPSG:'.$datumCode : $datumCode, $datum?->name() ?? $node->name(), $factor, $unit,
            $down,
        );
    }

    private function datum(WktNode $node): Datum
    {
        $datum = $node->child('DATUM', 'TRF', 'GEODETICDATUM', 'ENSEMBLE')
            ?? throw new UnreadableSystem(\sprintf('%s "%s" must hold DATUM', $node->keyword, $node->name()));
        $el = $datum->child('ELLIPSOID', 'SPHEROID')
            ?? throw new UnreadableSystem(\sprintf('the datum "%s" must hold ELLIPSOID', $datum->name()));
        $unit = $el->child('LENGTHUNIT', 'UNIT');
        $inverse = $el->number(2);
        $ellipsoid = new Ellipsoid(
            $el->name(), $el->number(1) * (null === $unit ? 1.0 : self::factor($unit)),
            0.0 === $inverse ? \INF : $inverse,
        );
        $pm = $node->child('PRIMEM', 'PRIMEMERIDIAN');
        $meridian = 0.0;
        if (null !== $pm) {
            $pmUnit = $pm->child('ANGLEUNIT', 'UNIT');
            $meridian = round(rad2deg($pm->number(1) * (null === $pmUnit ? \M_PI / 180.0 : self::factor($pmUnit))), 12);
        }
        $code = $datum->epsg();
        if (null === $code) {
            $code = $this->datumByName($datum->name(), $node, $ellipsoid);
        }
        $known = null === $code || null === $this->registry ? null : $this->registry->datum('EPSG:'.$code);

        return new Datum(
            null === $code ? null : 'EPSG:'.$code, $datum->name(), $ellipsoid, $meridian, $pm?->name() ?? 'Greenwich',
            $known->members ?? [], $known?->accuracy, $known?->epoch,
        );
    }

    private function datumByName(string $name, WktNode $system, Ellipsoid $ellipsoid): ?int
    {
        if (null === $this->registry) {
            return null;
        }
        $crs = $system->epsg();
        if (null !== $crs) {
            $row = $this->registry->row("SELECT datum_code c FROM geodetic_crs WHERE auth_name = 'EPSG' AND code = ?", [$crs]);
            if (null !== $row && null !== $row['c']) {
                return (int) $row['c'];
            }
        }
        $key = Datum::key($name);
        foreach ($this->registry->rows(
            'SELECT d.code c, d.name n, a.alt_name t FROM geodetic_datum d LEFT JOIN alias_name a ON a.table_name = '
                ."'geodetic_datum' AND a.auth_name = d.auth_name AND a.code = d.code WHERE d.auth_name = 'EPSG' AND d.deprecated = 0",
        ) as $row) {
            if ($key === Datum::key((string) $row['n']) || (null !== $row['t'] && $key === Datum::key((string) $row['t']))) {
                $same = $this->registry->datum('EPSG:'.$row['c'])->ellipsoid;
                if (abs($same->a - $ellipsoid->a) < 0.01 && abs($same->f - $ellipsoid->f) < 1e-8) {
                    return (int) $row['c'];
                }
            }
        }

        return null;
    }

    private function geodeticCode(WktNode $node, Datum $datum): ?string
    {
        $code = $node->epsg();
        if (null !== $code) {
            return 'EPSG:'.$code;
        }
        if (null === $datum->code || null === $this->registry) {
            return null;
        }
        $row = $this->registry->row(
            "SELECT code c FROM geodetic_crs WHERE datum_auth_name = 'EPSG' AND datum_code = ? AND auth_name = 'EPSG' "
                ."AND type = 'geographic 2D' ORDER BY deprecated, code",
            [(int) Registry::split($datum->code)[1]],
        );

        return null === $row ? null : 'EPSG:'.$row['c'];
    }

    /** @return array{float, string} metres per unit, name */
    private function linearUnit(WktNode $node): array
    {
        $unit = $node->child('LENGTHUNIT');
        if (null === $unit) {
            foreach ($node->children('AXIS') as $axis) {
                $unit ??= $axis->child('LENGTHUNIT');
            }
        }

        return null === $unit ? [1.0, 'metre'] : [self::factor($unit), $unit->name()];
    }

    private static function unitOf(WktNode $node, string $keyword, float $default): float
    {
        $unit = $node->child($keyword);
        if (null === $unit) {
            foreach ($node->children('AXIS') as $axis) {
                $unit ??= $axis->child($keyword);
            }
        }

        return null === $unit ? $default : self::factor($unit);
    }

    private static function factor(WktNode $unit): float
    {
        return match (strtolower($unit->name())) {
            // Printed factors are cut; these are defined exactly.
            'us survey foot' => 1200.0 / 3937.0,
            'degree' => \M_PI / 180.0,
            default => $unit->number(1),
        };
    }

    /** @return list<Axis> */
    private static function axes(WktNode $node): array
    {
        $axes = [];
        foreach ($node->children('AXIS') as $axis) {
            $direction = \is_string($axis->items[1] ?? null) ? strtolower($axis->items[1]) : '';
            $axes[] = new Axis(1 === preg_match('/\(([^)]+)\)/', $axis->name(), $match) ? $match[1] : $axis->name(), $direction);
        }

        return $axes;
    }

    private static function area(WktNode $node): ?Area
    {
        $box = $node->child('BBOX') ?? $node->child('USAGE')?->child('BBOX');
        if (null === $box) {
            return null;
        }
        $area = $node->child('AREA') ?? $node->child('USAGE')?->child('AREA');

        return new Area($box->number(0), $box->number(1), $box->number(2), $box->number(3), $area?->name() ?? '');
    }

    private static function methodByName(string $name): int
    {
        $key = self::key($name);
        foreach (Methods::METHODS as $code => [$known]) {
            if (self::key($known) === $key) {
                return $code;
            }
        }

        return match ($key) {
            'lambertconicconformal2spbelgium' => 9803,
            'obliquestereographic', 'doublestereographic' => 9809,
            'albersconicequalarea' => 9822,
            'gausskruger' => 9807,
            default => throw new UnreadableSystem(\sprintf('the projection method "%s" is not among those available', $name)),
        };
    }

    private static function parameterByName(string $name): int
    {
        foreach (Methods::PARAMETERS as $code => $known) {
            if (self::key($known) === self::key($name)) {
                return $code;
            }
        }

        throw new UnreadableSystem(\sprintf('the projection parameter "%s" is not known', $name));
    }

    private static function key(string $name): string
    {
        return preg_replace('/[^a-z0-9]/', '', strtolower($name)) ?? '';
    }
}
