<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Exchange\Las\LasReader;
use Mensura\Fault\UnusableInput;

/** LAS 1.0 to 1.4 and LAZ (ASPRS LAS specification 1.4 R15): what the header says, held against the file. */
final class LasLook
{
    /** Points whose places are read one by one; of more the header's own extent is taken. */
    private const MOST = 8_000_000;
    private const ATTRIBUTES = [
        'intensity', 'return_number', 'number_of_returns', 'classification', 'scan_angle', 'user_data', 'point_source_id',
    ];
    private const WITH_TIME = [1, 3, 4, 5, 6, 7, 8, 9, 10];
    private const WITH_COLOUR = [2, 3, 5, 7, 8, 10];

    public static function read(Looked $l, string $path, Systems $systems, string $name): void
    {
        $las = self::header($l, $path, $systems, $name);
        if ($las->isPacked || $las->count > self::MOST) {
            if ($las->count > 0) {
                [$low, $high] = self::stated($path);
                $l->reach(...$low);
                $l->reach(...$high);
            }

            return;
        }
        self::extent($l, $las, $path);
    }

    /** What the header says of the points and their system, held against the file; no point is read. */
    public static function header(Looked $l, string $path, Systems $systems, string $name): LasReader
    {
        $stream = fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read');
        $las = new LasReader($stream, $name);
        $size = (int) filesize($path);
        $head = (string) file_get_contents($path, length: 375);
        $start = (int) ((array) unpack('V', $head, 96))[1];
        $record = (int) ((array) unpack('v', $head, 105))[1];
        $l->kind = $las->isPacked ? 'laz' : 'las';
        foreach (self::ATTRIBUTES as $attribute) {
            $l->attribute($attribute);
        }
        if (\in_array($las->format, self::WITH_TIME, true)) {
            $l->attribute('gps_time');
        }
        if (\in_array($las->format, self::WITH_COLOUR, true)) {
            array_map($l->attribute(...), ['red', 'green', 'blue']);
        }
        self::system($l, $stream, $head, $size, $systems);
        if ($start > $size) {
            throw new UnusableInput($name, \sprintf('says that points begin at byte %d and holds %d bytes: it is cut off', $start, $size));
        }
        $fits = intdiv($size - $start, max(1, $record));
        if (!$las->isPacked && $las->count > $fits) {
            throw new UnusableInput($name, \sprintf(
                'its header says %d points of %d bytes, the file holds %d of them: it is cut off, or its header is wrong', $las->count,
                $record, $fits,
            ));
        }
        if ($las->isPacked) {
            self::packed($l, $stream, $head, $las->count, $size, $name);
        }
        $l->count(Looked::POINT, $las->count);

        return $las;
    }

    /** @return array{array{float, float, float}, array{float, float, float}} least and greatest coordinates of the header */
    private static function stated(string $path): array
    {
        // Greatest and least of each axis in turn.
        $box = array_values((array) unpack('e6', (string) file_get_contents($path, length: 227), 179));

        return [[(float) $box[1], (float) $box[3], (float) $box[5]], [(float) $box[0], (float) $box[2], (float) $box[4]]];
    }

    private static function extent(Looked $l, LasReader $las, string $path): void
    {
        $low = [\INF, \INF, \INF];
        $high = [-\INF, -\INF, -\INF];
        foreach ($las->points() as [$bx, $by, $bz]) {
            foreach ([$bx, $by, $bz] as $axis => $values) {
                $low[$axis] = [] === $values ? $low[$axis] : min($low[$axis], min($values));
                $high[$axis] = [] === $values ? $high[$axis] : max($high[$axis], max($values));
            }
        }
        if ($las->count > 0) {
            $l->reach(...$low);
            $l->reach(...$high);
            $off = 0.0;
            [$least, $greatest] = self::stated($path);
            for ($k = 0; $k < 3; ++$k) {
                $off = max($off, abs($greatest[$k] - $high[$k]), abs($least[$k] - $low[$k]));
            }
            if ($off > 2.0 * max(array_map(abs(...), $las->scale))) {
                $l->warn(\sprintf('its header states an extent that is %.3f off that of its points', $off));
            }
        }
    }

    /** @param resource $stream */
    private static function packed(Looked $l, $stream, string $head, int $count, int $size, string $name): void
    {
        $start = (int) ((array) unpack('V', $head, 96))[1];
        fseek($stream, $start);
        $table = (string) fread($stream, 8);
        if (\strlen($table) < 8) {
            throw new UnusableInput($name, 'is cut off before its points');
        }
        $at = (int) ((array) unpack('P', $table))[1];
        if ($at < 0) {
            return; // written without going back; the table's place is at the end
        }
        if ($at < $start + 8 || $at + 8 > $size) {
            throw new UnusableInput($name, \sprintf('its table of chunks lies at byte %d, the file holds %d: it is cut off', $at, $size));
        }
        fseek($stream, $at);
        $chunks = (int) ((array) unpack('V', (string) substr((string) fread($stream, 8), 4, 4)))[1];
        if (0 === $chunks && $count > 0) {
            throw new UnusableInput($name, \sprintf('its header says %d points, its table of chunks is empty', $count));
        }
        // A point takes more than a hundredth of a byte, however well it is packed.
        if ($count > 100 * $size) {
            throw new UnusableInput($name, \sprintf('its header says %d points in %d bytes', $count, $size));
        }
    }

    /** @param resource $stream */
    private static function system(Looked $l, $stream, string $head, int $size, Systems $systems): void
    {
        $header = (int) ((array) unpack('v', $head, 94))[1];
        $count = (int) ((array) unpack('V', $head, 100))[1];
        $records = [];
        $at = $header;
        for ($i = 0; $i < min($count, 1000) && $at + 54 <= $size; ++$i) {
            fseek($stream, $at);
            $vlr = (string) fread($stream, 54);
            $length = (int) ((array) unpack('v', $vlr, 20))[1];
            $records[] = [rtrim(substr($vlr, 2, 16), "\0"), (int) ((array) unpack('v', $vlr, 18))[1], $at + 54, $length];
            $at += 54 + $length;
        }
        if (\ord($head[25]) >= 4 && \strlen($head) >= 247) {
            $at = (int) ((array) unpack('P', $head, 235))[1];
            $count = (int) ((array) unpack('V', $head, 243))[1];
            for ($i = 0; $i < min($count, 1000) && $at > 0 && $at + 60 <= $size; ++$i) {
                fseek($stream, $at);
                $vlr = (string) fread($stream, 60);
                $length = (int) ((array) unpack('P', $vlr, 20))[1];
                if ($length < 0 || $at + 60 + $length > $size) {
                    $l->warn('one of its extended records is cut off');
                    break;
                }
                $records[] = [rtrim(substr($vlr, 2, 16), "\0"), (int) ((array) unpack('v', $vlr, 18))[1], $at + 60, min($length, 1 << 20)];
                $at += 60 + $length;
            }
        }
        foreach ($records as [$user, $id, $from, $length]) {
            if ('LASF_Projection' !== $user || $length < 1 || !\in_array($id, [2112, 34735], true)) {
                continue;
            }
            fseek($stream, $from);
            $bytes = (string) fread($stream, $length);
            if (2112 === $id) {
                $systems->fromWkt($l, rtrim($bytes, "\0"));
            } elseif (null === $l->crs) {
                TiffKeys::system($l, array_values((array) unpack('v*', $bytes)), $systems);
            }
        }
    }
}
