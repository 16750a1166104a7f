<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features;

/** Geometries as well-known binary (OGC 06-103r4, with the heights of ISO 13249: types from 1000 on). */
final class Wkb
{
    private const SINGLE = [Feature::POINT => 1, Feature::LINE => 2, Feature::POLYGON => 3, Feature::FACE => 3];
    private const DEEPEST = 32;

    public static function written(Feature $f, bool $hasHeights): string
    {
        $type = self::SINGLE[$f->kind] + ($hasHeights ? 1000 : 0);
        $parts = array_map(static fn (array $rings): string => self::part($f->kind, $rings, $type, $hasHeights), $f->parts);

        return 1 === \count($parts) ? $parts[0] : "\x01".pack('VV', $type + 3, \count($parts)).implode('', $parts);
    }

    /** @param list<list<array{float, float, ?float}>> $rings */
    private static function part(string $kind, array $rings, int $type, bool $hasHeights): string
    {
        $places = static function (array $ring) use ($hasHeights): string {
            $bytes = '';
            foreach ($ring as [$x, $y, $h]) {
                $bytes .= $hasHeights ? pack('e3', $x, $y, $h ?? 0.0) : pack('e2', $x, $y);
            }

            return $bytes;
        };
        $head = "\x01".pack('V', $type);
        if (Feature::POINT === $kind) {
            return $head.$places($rings[0]);
        }
        if (Feature::LINE === $kind) {
            return $head.pack('V', \count($rings[0])).$places($rings[0]);
        }

        return $head.pack('V', \count($rings)).implode('', array_map(
            static fn (array $ring): string => pack('V', \count($ring)).$places($ring), $rings,
        ));
    }

    /**
     * @return ?array{string, list<list<list<array{float, float, ?float}>>>} kind and parts; null where it is empty
     *
     * @throws \UnexpectedValueException where it is cut off or of a type that is not read
     */
    public static function read(string $bytes, int $at = 0): ?array
    {
        $parts = [];
        $kind = self::geometry($bytes, $at, $parts, 0);

        return null === $kind || [] === $parts ? null : [$kind, $parts];
    }

    /** @param list<list<list<array{float, float, ?float}>>> $parts */
    private static function geometry(string $bytes, int &$at, array &$parts, int $depth): ?string
    {
        $little = 1 === \ord(self::take($bytes, $at, 1));
        $type = self::whole($bytes, $at, $little);
        $hasZ = 0 !== ($type & 0x80000000);
        $hasM = 0 !== ($type & 0x40000000);
        $at += 0 !== ($type & 0x20000000) ? 4 : 0;
        $type &= 0x1FFFFFFF;
        $hasZ = $hasZ || \in_array(intdiv($type, 1000), [1, 3], true);
        $width = 2 + (int) $hasZ + (int) ($hasM || \in_array(intdiv($type, 1000), [2, 3], true));
        $type %= 1000;
        if ($depth > self::DEEPEST || $type < 1 || $type > 17 || \in_array($type, [8, 9, 10, 13, 14], true)) {
            throw new \UnexpectedValueException(\sprintf('a geometry of type %d is not converted', $type));
        }
        if (1 === $type) {
            $place = self::places($bytes, $at, 1, $width, $hasZ, $little);
            if ([] !== $place) {
                $parts[] = [$place];
            }

            return Feature::POINT;
        }
        if (2 === $type) {
            $places = self::places($bytes, $at, self::whole($bytes, $at, $little), $width, $hasZ, $little);
            if ([] !== $places) {
                $parts[] = [$places];
            }

            return Feature::LINE;
        }
        if (3 === $type || 17 === $type) {
            $rings = [];
            for ($n = self::whole($bytes, $at, $little); $n > 0; --$n) {
                $ring = self::places($bytes, $at, self::whole($bytes, $at, $little), $width, $hasZ, $little);
                if ([] !== $ring) {
                    $rings[] = $ring;
                }
            }
            if ([] !== $rings) {
                $parts[] = $rings;
            }

            return 3 === $type ? Feature::POLYGON : Feature::FACE;
        }
        $kind = null;
        for ($n = self::whole($bytes, $at, $little); $n > 0; --$n) {
            $inner = [];
            $of = self::geometry($bytes, $at, $inner, $depth + 1);
            // A collection of different kinds counts as its first.
            $kind ??= $of;
            if ($of === $kind) {
                array_push($parts, ...$inner);
            }
        }

        return $kind;
    }

    /** @return list<array{float, float, ?float}> */
    private static function places(string $bytes, int &$at, int $count, int $width, bool $hasZ, bool $little): array
    {
        if ($count * $width * 8 > \strlen($bytes) - $at) {
            throw new \UnexpectedValueException('a geometry is cut off');
        }
        $places = [];
        for ($i = 0; $i < $count; ++$i) {
            $v = (array) unpack(($little ? 'e' : 'E').$width, $bytes, $at);
            $at += 8 * $width;
            if (!is_nan($v[1]) && !is_nan($v[2])) {
                $places[] = [(float) $v[1], (float) $v[2], $hasZ ? (float) $v[3] : null];
            }
        }

        return $places;
    }

    private static function whole(string $bytes, int &$at, bool $little): int
    {
        return (int) ((array) unpack($little ? 'V' : 'N', self::take($bytes, $at, 4)))[1];
    }

    private static function take(string $bytes, int &$at, int $length): string
    {
        if ($at + $length > \strlen($bytes)) {
            throw new \UnexpectedValueException('a geometry is cut off');
        }
        $at += $length;

        return substr($bytes, $at - $length, $length);
    }
}
