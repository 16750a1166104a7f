<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Fault\UnusableInput;

/** Shapefiles (ESRI technical description, July 1998): the records of .shp, the fields of .dbf, the system of .prj. */
final class ShapefileLook
{
    private const HEADER = 100;
    private const KINDS = [
        1 => Looked::POINT, 11 => Looked::POINT, 21 => Looked::POINT, 8 => Looked::POINT, 18 => Looked::POINT, 28 => Looked::POINT,
        3 => Looked::LINE, 13 => Looked::LINE, 23 => Looked::LINE, 5 => Looked::POLYGON, 15 => Looked::POLYGON, 25 => Looked::POLYGON,
        31 => Looked::POLYGON,
    ];
    private const HAS_Z = [11, 13, 15, 18, 31];
    /** What stands for no value is below this. */
    private const NO_DATA = -1e38;

    /**
     * @param resource                   $shp
     * @param \Closure(string): ?string $companion contents of the file beside it with another ending
     */
    public static function read(Looked $l, $shp, int $size, string $layer, \Closure $companion, Systems $systems, string $name): void
    {
        $header = (string) fread($shp, self::HEADER);
        if (\strlen($header) < self::HEADER) {
            throw new UnusableInput($name, 'is cut off in its header');
        }
        $length = 2 * self::big($header, 24);
        if ($length !== $size) {
            if ($length > $size) {
                $l->warn(\sprintf('its header says %d bytes, there are %d: it is cut off', $length, $size));
            } else {
                $l->warn(\sprintf('its header says %d bytes, %d follow that belong to nothing', $length, $size - $length));
            }
        }
        $records = self::records($l, $shp, min($size, max($length, self::HEADER)), $layer);
        $l->layer($layer, 0);
        $dbf = $companion('dbf');
        if (null !== $dbf) {
            self::fields($l, $dbf, $records, (string) $companion('cpg'));
        }
        $prj = $companion('prj');
        if (null !== $prj) {
            $systems->fromWkt($l, $prj);
        } else {
            $l->warn('there is no .prj beside it: its coordinate system is not said');
        }
    }

    /** @param resource $shp */
    private static function records(Looked $l, $shp, int $end, string $layer): int
    {
        $at = self::HEADER;
        $records = 0;
        while ($at + 8 <= $end) {
            $head = (string) fread($shp, 8);
            $length = \strlen($head) < 8 ? -1 : 2 * self::big($head, 4);
            if ($length < 4 || $at + 8 + $length > $end) {
                $words = 'record %d says a length of %d bytes, which the file does not hold; it and what follows is left out';
                $l->warn(\sprintf($words, $records + 1, $length));

                return $records;
            }
            $body = (string) fread($shp, $length);
            $at += 8 + $length;
            ++$records;
            try {
                self::shape($l, $body);
            } catch (\UnexpectedValueException $e) {
                $l->warn(\sprintf('record %d: %s', $records, $e->getMessage()));
                continue;
            }
            $l->layer($layer);
        }
        if ($at < $end) {
            $l->warn(\sprintf('%d bytes at its end are no record', $end - $at));
        }

        return $records;
    }

    private static function shape(Looked $l, string $body): void
    {
        $type = self::little($body, 0);
        if (0 === $type) {
            return;
        }
        $kind = self::KINDS[$type] ?? throw new \UnexpectedValueException(\sprintf('a shape of type %d is not known', $type));
        if (\in_array($type, [1, 11, 21], true)) {
            $count = 1;
            $xy = 4;
            $z = 20;
        } elseif (\in_array($type, [8, 18, 28], true)) {
            $count = self::little($body, 36);
            $xy = 40;
            $z = $xy + 16 * $count + 16;
        } else {
            $parts = self::little($body, 36);
            $count = self::little($body, 40);
            $xy = 44 + 4 * $parts * (31 === $type ? 2 : 1);
            $z = $xy + 16 * $count + 16;
        }
        if ($count < 0 || $xy + 16 * $count > \strlen($body)) {
            throw new \UnexpectedValueException(\sprintf('says %d places, which it does not hold', $count));
        }
        $hasZ = \in_array($type, self::HAS_Z, true) && $z + 8 * $count <= \strlen($body);
        for ($i = 0; $i < $count; ++$i) {
            [$x, $y] = array_values((array) unpack('e2', $body, $xy + 16 * $i));
            $height = $hasZ ? ((array) unpack('e', $body, $z + 8 * $i))[1] : null;
            $l->reach($x, $y, null !== $height && $height > self::NO_DATA ? $height : null);
        }
        if ($count > 0) {
            $l->count($kind);
        }
    }

    private static function fields(Looked $l, string $dbf, int $records, string $cpg): void
    {
        if (\strlen($dbf) < 32) {
            $l->warn('its .dbf is cut off');

            return;
        }
        $rows = (int) ((array) unpack('V', $dbf, 4))[1];
        $head = (int) ((array) unpack('v', $dbf, 8))[1];
        $width = (int) ((array) unpack('v', $dbf, 10))[1];
        for ($at = 32; $at + 32 <= min($head, \strlen($dbf)) && "\r" !== $dbf[$at]; $at += 32) {
            $name = substr($dbf, $at, 11);
            $l->attribute(self::text(substr($name, 0, strcspn($name, "\0")), $cpg, \ord($dbf[29])));
        }
        if ($rows !== $records) {
            $l->warn(\sprintf('its .dbf says %d rows, its .shp holds %d records', $rows, $records));
        }
        if ($head + $rows * $width > \strlen($dbf)) {
            $l->warn(\sprintf('its .dbf is cut off: %d rows of %d bytes do not fit', $rows, $width));
        }
    }

    private static function text(string $bytes, string $cpg, int $driver): string
    {
        $isUtf8 = 1 === preg_match('/utf-?8|65001/i', $cpg) || '' === $cpg && 0 === $driver && mb_check_encoding($bytes, 'UTF-8');

        return $isUtf8 ? mb_scrub($bytes, 'UTF-8') : mb_convert_encoding($bytes, 'UTF-8', 'Windows-1252');
    }

    private static function big(string $bytes, int $at): int
    {
        return self::signed((int) ((array) unpack('N', $bytes, $at))[1]);
    }

    private static function little(string $bytes, int $at): int
    {
        if ($at + 4 > \strlen($bytes)) {
            throw new \UnexpectedValueException('is cut off');
        }

        return self::signed((int) ((array) unpack('V', $bytes, $at))[1]);
    }

    private static function signed(int $value): int
    {
        return $value > 0x7FFFFFFF ? $value - 0x100000000 : $value;
    }
}
