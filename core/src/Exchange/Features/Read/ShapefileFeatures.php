<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\Ring;

/** Features of a shapefile (ESRI technical description, July 1998) with the rows of its .dbf. What is damaged the look has said. */
final class ShapefileFeatures
{
    private const HEADER = 100;
    private const NO_DATA = -1e38;
    private const WITH_Z = [11, 13, 15, 18];

    /** @param \Closure(string): ?string $companion contents of the file beside it with another ending */
    public static function read(FeatureSet $set, string $bytes, \Closure $companion, string $layer): void
    {
        $table = new DbfTable((string) $companion('dbf'), (string) $companion('cpg'));
        $end = min(\strlen($bytes), 2 * self::big($bytes, 24));
        for ($at = self::HEADER, $row = 0; $at + 12 <= $end; $at += 8 + $length, ++$row) {
            $length = 2 * self::big($bytes, $at + 4);
            if ($length < 4 || $at + 8 + $length > $end) {
                return;
            }
            $shape = self::shape(substr($bytes, $at + 8, $length));
            if (null !== $shape) {
                $set->features[] = new Feature($shape[0], $layer, $shape[1], $table->row($row));
            }
        }
    }

    /** @return ?array{string, list<list<list<array{float, float, ?float}>>>} */
    private static function shape(string $body): ?array
    {
        $type = self::little($body, 0);
        $hasZ = \in_array($type, self::WITH_Z, true);
        if (\in_array($type, [1, 11, 21], true)) {
            return \strlen($body) < ($hasZ ? 28 : 20) ? null : [Feature::POINT, [[self::places($body, 4, 1, $hasZ ? 20 : null)]]];
        }
        if (\in_array($type, [8, 18, 28], true)) {
            $count = self::little($body, 36);
            if ($count < 1 || 40 + 16 * $count > \strlen($body)) {
                return null;
            }
            $z = 40 + 16 * $count + 16;
            $places = self::places($body, 40, $count, $hasZ && $z + 8 * $count <= \strlen($body) ? $z : null);

            return [Feature::POINT, array_map(static fn (array $place): array => [[$place]], $places)];
        }
        if (!\in_array($type, [3, 13, 23, 5, 15, 25], true)) {
            return null;
        }
        $parts = self::little($body, 36);
        $count = self::little($body, 40);
        $xy = 44 + 4 * $parts;
        if ($parts < 1 || $count < 1 || $xy + 16 * $count > \strlen($body)) {
            return null;
        }
        $z = $xy + 16 * $count + 16;
        $places = self::places($body, $xy, $count, $hasZ && $z + 8 * $count <= \strlen($body) ? $z : null);
        $rings = [];
        for ($k = 0; $k < $parts; ++$k) {
            $from = self::little($body, 44 + 4 * $k);
            $to = $k + 1 < $parts ? self::little($body, 48 + 4 * $k) : $count;
            if ($from >= 0 && $to > $from && $to <= $count) {
                $rings[] = \array_slice($places, $from, $to - $from);
            }
        }

        return \in_array($type, [3, 13, 23], true) ? [Feature::LINE, array_map(static fn (array $ring): array => [$ring], $rings)]
            : [Feature::POLYGON, self::polygons($rings)];
    }

    /**
     * Outer rings run clockwise, holes the other way and follow them; a hole belongs to the outer ring that holds it.
     *
     * @param list<list<array{float, float, ?float}>> $rings
     *
     * @return list<list<list<array{float, float, ?float}>>>
     */
    private static function polygons(array $rings): array
    {
        $outer = $holes = [];
        foreach ($rings as $ring) {
            Ring::twiceArea($ring) <= 0.0 || [] === $outer ? $outer[] = [$ring] : $holes[] = $ring;
        }
        foreach ($holes as $hole) {
            $of = \count($outer) - 1;
            foreach ($outer as $k => [$around]) {
                if (self::holds($around, $hole[0])) {
                    $of = $k;
                }
            }
            $outer[$of][] = $hole;
        }

        return $outer;
    }

    /**
     * @param list<array{float, float, ?float}> $ring
     * @param array{float, float, ?float}       $p
     */
    private static function holds(array $ring, array $p): bool
    {
        $inside = false;
        for ($i = 1, $n = \count($ring); $i < $n; ++$i) {
            [$ax, $ay] = $ring[$i - 1];
            [$bx, $by] = $ring[$i];
            if (($ay > $p[1]) !== ($by > $p[1]) && $p[0] < $ax + ($p[1] - $ay) / ($by - $ay) * ($bx - $ax)) {
                $inside = !$inside;
            }
        }

        return $inside;
    }

    /** @return list<array{float, float, ?float}> */
    private static function places(string $body, int $xy, int $count, ?int $z): array
    {
        $places = [];
        for ($i = 0; $i < $count; ++$i) {
            $v = (array) unpack('e2', $body, $xy + 16 * $i);
            $h = null === $z ? null : (float) ((array) unpack('e', $body, $z + 8 * $i))[1];
            $places[] = [(float) $v[1], (float) $v[2], null !== $h && $h > self::NO_DATA ? $h : null];
        }

        return $places;
    }

    private static function big(string $bytes, int $at): int
    {
        return (int) ((array) unpack('N', $bytes, $at))[1];
    }

    private static function little(string $bytes, int $at): int
    {
        return $at + 4 > \strlen($bytes) ? 0 : (int) ((array) unpack('V', $bytes, $at))[1];
    }
}
