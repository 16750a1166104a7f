<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

/** Geometries of well-known binary (OGC 06-103r4 with the Z and M of ISO 13249, and the high bits of older writers): kind and places. */
final class Geometry
{
    private const KINDS = [
        1 => Looked::POINT, 2 => Looked::LINE, 3 => Looked::POLYGON, 4 => Looked::POINT, 5 => Looked::LINE, 6 => Looked::POLYGON,
        8 => Looked::LINE, 9 => Looked::LINE, 10 => Looked::POLYGON, 11 => Looked::LINE, 12 => Looked::POLYGON, 13 => Looked::LINE,
        14 => Looked::POLYGON, 15 => Looked::POLYGON, 16 => Looked::POLYGON, 17 => Looked::FACE,
    ];
    private const DEEPEST = 32;

    /** Counts a geometry with its places; false where it is empty. */
    public static function wkb(Looked $l, string $bytes, int $at): bool
    {
        $kind = null;
        $places = self::read($l, $bytes, $at, $kind, 0);
        if (0 === $places || null === $kind) {
            return false;
        }
        $l->count($kind);

        return true;
    }

    /** @return int places in it */
    private static function read(Looked $l, string $bytes, int &$at, ?string &$kind, int $depth): int
    {
        $little = 1 === \ord(self::take($bytes, $at, 1));
        $type = self::whole($bytes, $at, $little);
        $hasZ = 0 !== ($type & 0x80000000);
        $hasM = 0 !== ($type & 0x40000000);
        $at += 0 !== ($type & 0x20000000) ? 4 : 0;
        $type &= 0x1FFFFFFF;
        $hasZ = $hasZ || \in_array(intdiv($type, 1000), [1, 3], true);
        $hasM = $hasM || \in_array(intdiv($type, 1000), [2, 3], true);
        $type %= 1000;
        if ($depth > self::DEEPEST || 7 !== $type && !isset(self::KINDS[$type])) {
            throw new \UnexpectedValueException(\sprintf('a geometry of type %d is not known', $type));
        }
        $width = 2 + (int) $hasZ + (int) $hasM;
        $places = 0;
        if (1 === $type) {
            $places = self::places($l, $bytes, $at, 1, $width, $hasZ, $little);
        } elseif (\in_array($type, [2, 8, 13], true)) {
            $places = self::places($l, $bytes, $at, self::whole($bytes, $at, $little), $width, $hasZ, $little);
        } elseif (\in_array($type, [3, 17], true)) {
            for ($n = self::whole($bytes, $at, $little); $n > 0; --$n) {
                $places += self::places($l, $bytes, $at, self::whole($bytes, $at, $little), $width, $hasZ, $little);
            }
        } else {
            $inner = null;
            for ($n = self::whole($bytes, $at, $little); $n > 0; --$n) {
                $places += self::read($l, $bytes, $at, $inner, $depth + 1);
            }
            $kind ??= 7 === $type ? $inner : self::KINDS[$type];
        }
        $kind ??= self::KINDS[$type] ?? null;

        return $places;
    }

    private static function places(Looked $l, string $bytes, int &$at, int $count, int $width, bool $hasZ, bool $little): int
    {
        if ($count * $width * 8 > \strlen($bytes) - $at) {
            throw new \UnexpectedValueException('a geometry is cut off');
        }
        $letter = $little ? 'e' : 'E';
        $real = 0;
        for ($i = 0; $i < $count; ++$i) {
            $v = array_values((array) unpack($letter.$width, $bytes, $at));
            $at += 8 * $width;
            if (is_nan($v[0]) || is_nan($v[1])) {
                continue; // the way a point says that it is empty
            }
            $l->reach($v[0], $v[1], $hasZ ? $v[2] : null);
            ++$real;
        }

        return $real;
    }

    private static function whole(string $bytes, int &$at, bool $little): int
    {
        $four = self::take($bytes, $at, 4);

        return (int) ((array) unpack($little ? 'V' : 'N', $four))[1];
    }

    private static function take(string $bytes, int &$at, int $length): string
    {
        if ($at + $length > \strlen($bytes)) {
            throw new \UnexpectedValueException('a geometry is cut off');
        }
        $part = substr($bytes, $at, $length);
        $at += $length;

        return $part;
    }
}
