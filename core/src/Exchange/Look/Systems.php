<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\Text\UnreadableSystem;
use Mensura\Reference\Text\WktNode;
use Mensura\Reference\UnknownSystem;
use Mensura\Reference\UnsupportedMethod;

/**
 * Names a coordinate system by its code in the EPSG registry: by the code its text carries, or by its name (the registry's own or
 * another it lists) where the definition is the same, too.
 */
final class Systems
{
    private const SAME = 0.001;

    private ?Registry $registry = null;

    /** Sets code and unit of a file from WKT; what cannot be named stays unnamed, with a warning. */
    public function fromWkt(Looked $l, string $wkt): void
    {
        $wkt = trim($wkt, " \t\r\n\0\xEF\xBB\xBF");
        if ('' === $wkt) {
            return;
        }
        try {
            $node = WktNode::parse($wkt);
            if (\in_array($node->keyword, ['LOCAL_CS', 'ENGCRS', 'ENGINEERINGCRS'], true)) {
                $l->unit = self::unitOf((float) ($node->child('UNIT', 'LENGTHUNIT')?->number(1) ?? 1.0));

                return;
            }
            $horizontal = $node->child('PROJCRS', 'PROJCS', 'GEOGCRS', 'GEOGCS', 'GEODCRS', 'SOURCECRS');
            $isWhole = !\in_array($node->keyword, ['COMPD_CS', 'COMPOUNDCRS', 'BOUNDCRS'], true) || null === $horizontal;
            $this->say($l, $isWhole ? $node : $horizontal);
        } catch (UnreadableSystem $e) {
            $l->warn('its coordinate system cannot be read: '.$e->getMessage());
        } catch (UnknownSystem) {
            // Without the registry no system has a code.
        }
    }

    /** Sets code and unit of a file from a code of the registry. */
    public function fromCode(Looked $l, int $code): void
    {
        $l->crs = 'EPSG:'.$code;
        try {
            $system = $this->registry()->system('EPSG:'.$code);
            $l->unit = self::unit($system);
        } catch (UnknownSystem|UnsupportedMethod) {
            $l->warn(\sprintf('EPSG:%d is not in the registry, or not a system that can be read', $code));
        }
    }

    private function say(Looked $l, WktNode $node): void
    {
        $isProjected = str_starts_with($node->keyword, 'PROJ');
        $unit = self::last($node, 'UNIT', 'LENGTHUNIT', 'ANGLEUNIT') ?? self::last($node->child('CS') ?? $node, 'LENGTHUNIT');
        $factor = null === $unit ? 1.0 : $unit->number(1);
        $l->unit = $isProjected ? self::unitOf($factor) : 'degree';
        $code = $node->epsg();
        if (null !== $code && null !== $this->known($code)) {
            $l->crs = 'EPSG:'.$code;

            return;
        }
        foreach ($this->named($node->name(), $isProjected) as $candidate) {
            $other = $this->known($candidate)?->horizontal;
            if (null !== $other && self::isSame($node, $isProjected ? $factor : 1.0, $other)) {
                $l->crs = 'EPSG:'.$candidate;

                return;
            }
        }
        $l->warn(\sprintf('its coordinate system "%s" is none of the registry by name and definition', $node->name()));
    }

    private static function last(WktNode $node, string ...$keywords): ?WktNode
    {
        $all = $node->children(...$keywords);

        return [] === $all ? null : $all[\count($all) - 1];
    }

    private function known(int $code): ?CoordinateSystem
    {
        try {
            return $this->registry()->system('EPSG:'.$code);
        } catch (UnknownSystem|UnsupportedMethod) {
            return null;
        }
    }

    /** @return list<int> codes of systems of that name */
    private function named(string $name, bool $isProjected): array
    {
        $table = $isProjected ? 'projected_crs' : 'geodetic_crs';
        $names = array_values(array_unique([$name, strtr($name, '_', ' ')]));
        $marks = implode(',', array_fill(0, \count($names), '?'));
        $rows = $this->registry()->rows(
            "SELECT code, deprecated FROM $table WHERE auth_name = 'EPSG' AND name COLLATE NOCASE IN ($marks) UNION "
            ."SELECT c.code, c.deprecated FROM alias_name a JOIN $table c ON c.auth_name = a.auth_name AND c.code = a.code "
            ."WHERE a.table_name = '$table' AND a.auth_name = 'EPSG' AND a.alt_name COLLATE NOCASE IN ($marks) ORDER BY 2, 1",
            [...$names, ...$names],
        );

        return array_values(array_map(static fn (array $row): int => (int) $row['code'], $rows));
    }

    /**
     * Whether a text says the same as a system: its ellipsoid, its unit, and the values of its projection, each among those of the
     * other and the other way round; what is left at nothing, or at a scale of one, need not be said.
     */
    private static function isSame(WktNode $node, float $unit, HorizontalSystem $other): bool
    {
        $geographic = $node->child('GEOGCS', 'BASEGEOGCRS', 'BASEGEODCRS') ?? $node;
        $ellipsoid = ($geographic->child('DATUM', 'ENSEMBLE', 'TRF') ?? $geographic)->child('SPHEROID', 'ELLIPSOID');
        $same = $other->ellipsoid();
        if (null === $ellipsoid || abs($ellipsoid->number(1) - $same->a) > self::SAME || abs($unit - $other->unit) > 1e-9) {
            return false;
        }
        $inverse = 0.0 === $ellipsoid->number(2) ? 0.0 : 1.0 / $ellipsoid->number(2);
        if (abs($inverse - $same->f) > 1e-10) {
            return false;
        }
        if (!$other->isProjected()) {
            return true;
        }
        $said = [];
        foreach (($node->child('CONVERSION') ?? $node)->children('PARAMETER') as $parameter) {
            $value = $parameter->number(1);
            $key = strtolower($parameter->name());
            $own = $parameter->child('LENGTHUNIT', 'ANGLEUNIT', 'SCALEUNIT');
            $said[] = match (true) {
                null !== $own => $value * $own->number(1),
                str_contains($key, 'easting') || str_contains($key, 'northing') => $value * $unit,
                str_contains($key, 'scale') => $value, default => deg2rad($value),
            };
        }
        $has = static fn (float $v, array $values): bool => [] !== array_filter(
            $values, static fn (float $w): bool => abs($v - $w) <= 1e-9 * max(1.0, abs($v)),
        );
        $values = array_values($other->conversion->values ?? []);
        foreach ([[$said, $values], [$values, $said]] as [$ones, $others]) {
            foreach ($ones as $value) {
                if (abs($value) > 1e-12 && abs($value - 1.0) > 1e-12 && !$has($value, $others)) {
                    return false;
                }
            }
        }

        return true;
    }

    private static function unit(CoordinateSystem $system): ?string
    {
        $h = $system->horizontal;

        return $h->isProjected() ? self::unitOf($h->unit) : 'degree';
    }

    public static function unitOf(float $metres): ?string
    {
        foreach (['metre' => 1.0, 'foot' => 0.3048, 'US survey foot' => 1200.0 / 3937.0, 'millimetre' => 0.001] as $name => $factor) {
            if (abs($metres / $factor - 1.0) < 1e-9) {
                return $name;
            }
        }

        return match (true) {
            abs($metres - 0.01) < 1e-12 => 'centimetre', abs($metres - 1000.0) < 1e-9 => 'kilometre',
            abs($metres - 0.0254) < 1e-12 => 'inch',
            default => null,
        };
    }

    private function registry(): Registry
    {
        return $this->registry ??= Registry::open();
    }
}
