<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Fault\UnusableInput;

/** E57 (ASTM E2807-11): scans with their points, placed by their poses; pages held against their checksums. */
final class E57Look
{
    private const HEADER = 48;
    private const SUM = 4;
    private const OF_PLACES = '/^(?:cartesian[XYZ]|spherical(?:Range|Azimuth|Elevation)|(?:cartesian|spherical)InvalidState)$/';
    /** Points whose places are read one by one; of more a scan's own bounds are taken. */
    private const MOST = 6_000_000;
    private const LARGEST_XML = 60_000_000;

    /**
     * @param resource $file
     * @param ?\Closure(string, array{float, float, float}): void $each
     */
    private function __construct(
        private $file, private readonly int $page, private readonly int $size, private readonly string $name,
        private readonly ?\Closure $each,
    ) {
    }

    /** @param ?\Closure(string, array{float, float, float}): void $each is given the scan and the place of every point */
    public static function read(Looked $l, string $path, Systems $systems, string $name, ?\Closure $each = null): void
    {
        $file = fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read');
        $head = (string) fread($file, self::HEADER);
        $size = (int) filesize($path);
        if (\strlen($head) < self::HEADER) {
            throw new UnusableInput($name, 'is cut off in its header');
        }
        $fields = (array) unpack('Plength/Pxml/PxmlLength/Ppage', $head, 16);
        ['length' => $length, 'xml' => $xml, 'xmlLength' => $xmlLength, 'page' => $page] = $fields;
        if ($length !== $size) {
            throw new UnusableInput($name, \sprintf('says %d bytes and holds %d: it is cut off, or its header is wrong', $length, $size));
        }
        $hasXml = $xml >= 0 && $xml < $size && $xmlLength >= 0 && $xmlLength <= self::LARGEST_XML;
        if ($page < 64 || $page > 1 << 20 || 0 !== $size % $page || !$hasXml) {
            throw new UnusableInput($name, 'its header states pages or places that the file cannot have');
        }
        $self = new self($file, $page, $size, $name, $each);
        $self->sums();
        $text = $self->logical($xml, $xmlLength);
        if (str_contains($text, '<!DOCTYPE')) {
            throw new UnusableInput($name, 'holds a document type declaration, which is not accepted');
        }
        $before = libxml_use_internal_errors(true);
        $root = simplexml_load_string($text, options: \LIBXML_NONET | \LIBXML_COMPACT | \LIBXML_PARSEHUGE);
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        if (false === $root) {
            throw new UnusableInput($name, 'its description in XML is damaged');
        }
        $l->unit = 'metre';
        foreach ($root->data3D->vectorChild ?? [] as $i => $scan) {
            $self->scan($l, $scan, '' === trim((string) $scan->name) ? 'scan '.$i : trim((string) $scan->name));
        }
        $wkt = trim((string) $root->coordinateMetadata);
        if ('' !== $wkt) {
            $systems->fromWkt($l, $wkt);
            $l->unit = 'metre';
        }
        fclose($file);
    }

    /** Every page ends with the CRC-32C of what is before it. */
    private function sums(): void
    {
        rewind($this->file);
        for ($number = 0; $number * $this->page < $this->size; ++$number) {
            $page = (string) fread($this->file, max(1, $this->page));
            if (\strlen($page) < $this->page || hash('crc32c', substr($page, 0, -self::SUM), true) !== substr($page, -self::SUM)) {
                $words = 'page %d does not agree with its checksum: the file is damaged';
                throw new UnusableInput($this->name, \sprintf($words, $number + 1));
            }
        }
    }

    /** Bytes from a physical place on, checksums left out. */
    private function logical(int $at, int $length): string
    {
        $out = '';
        while (\strlen($out) < $length) {
            $within = $at % $this->page;
            $usable = $this->page - self::SUM - $within;
            if ($usable > 0) {
                fseek($this->file, $at);
                $part = (string) fread($this->file, max(1, min($usable, $length - \strlen($out))));
                if ('' === $part) {
                    throw new UnusableInput($this->name, 'is cut off');
                }
                $out .= $part;
            }
            $at += $this->page - $within;
        }

        return $out;
    }

    /** The physical place so many logical bytes further. */
    private function further(int $at, int $by): int
    {
        $usable = $this->page - self::SUM;
        $logical = intdiv($at, $this->page) * $usable + $at % $this->page + $by;

        return intdiv($logical, $usable) * $this->page + $logical % $usable;
    }

    private function scan(Looked $l, \SimpleXMLElement $scan, string $name): void
    {
        $points = $scan->points;
        $count = (int) $points['recordCount'];
        if ($count < 0 || $count > 8 * $this->size) {
            throw new UnusableInput($this->name, \sprintf('scan "%s" says %d points, more than the file can hold', $name, $count));
        }
        $l->count(Looked::POINT, $count);
        $l->layer($name, $count);
        $fields = [];
        foreach ($points->prototype->children() as $field => $x) {
            $fields[] = [(string) $field, $x];
            if (!str_starts_with((string) $field, 'cartesian') && !str_starts_with((string) $field, 'spherical')) {
                $l->attribute((string) $field);
            }
        }
        $pose = self::pose($scan->pose ?? null);
        if (0 === $count) {
            return;
        }
        if ($count > self::MOST) {
            $b = $scan->cartesianBounds;
            if (!isset($b->xMinimum)) {
                $l->warn(\sprintf('scan "%s" has %d points and states no bounds: its extent is not looked for', $name, $count));

                return;
            }
            foreach ([(float) $b->xMinimum, (float) $b->xMaximum] as $px) {
                foreach ([(float) $b->yMinimum, (float) $b->yMaximum] as $py) {
                    foreach ([(float) $b->zMinimum, (float) $b->zMaximum] as $pz) {
                        $l->reach(...$pose($px, $py, $pz));
                    }
                }
            }

            return;
        }
        $this->places($l, (int) $points['fileOffset'], $count, $fields, $pose, $name);
    }

    /**
     * @param list<array{string, \SimpleXMLElement}>                                    $fields
     * @param \Closure(float, float, float): array{float, float, float} $pose
     */
    private function places(Looked $l, int $at, int $count, array $fields, \Closure $pose, string $name): void
    {
        $section = $this->logical($at, 32);
        ['length' => $length, 'data' => $data] = (array) unpack('Plength/Pdata', $section, 8);
        if (1 !== \ord($section[0]) || $length < 32 || $length > $this->size || $data < 0 || $data >= $this->size) {
            throw new UnusableInput($this->name, \sprintf('the points of scan "%s" are not where the file says', $name));
        }
        $wanted = [];
        foreach ($fields as $k => [$field]) {
            if (1 === preg_match(self::OF_PLACES, $field)) {
                $wanted[$k] = '';
            }
        }
        $left = $length - 32;
        $enough = false;
        $bits = array_map(self::bits(...), array_column($fields, 1));
        while ($left > 0 && !$enough) {
            $head = $this->logical($data, 6);
            $size = 1 + (int) ((array) unpack('v', $head, 2))[1];
            if (1 === \ord($head[0])) {
                $streams = (int) ((array) unpack('v', $head, 4))[1];
                $packet = $this->logical($data, $size);
                if ($streams !== \count($fields) || 6 + 2 * $streams > $size) {
                    $words = 'a packet of scan "%s" holds %d fields of %d';
                    throw new UnusableInput($this->name, \sprintf($words, $name, $streams, \count($fields)));
                }
                $from = 6 + 2 * $streams;
                $enough = true;
                for ($k = 0; $k < $streams; ++$k) {
                    $n = (int) ((array) unpack('v', $packet, 6 + 2 * $k))[1];
                    if (isset($wanted[$k])) {
                        $wanted[$k] .= substr($packet, $from, $n);
                        $enough = $enough && 8 * \strlen($wanted[$k]) >= $bits[$k] * $count;
                    }
                    $from += $n;
                }
            }
            $data = $this->further($data, $size);
            $left -= $size;
        }
        $values = [];
        foreach ($wanted as $k => $bytes) {
            if (8 * \strlen($bytes) < $bits[$k] * $count) {
                throw new UnusableInput($this->name, \sprintf('scan "%s" says %d points and holds fewer', $name, $count));
            }
            $values[$fields[$k][0]] = self::decoded($bytes, $fields[$k][1], $count);
        }
        $invalid = $values['cartesianInvalidState'] ?? $values['sphericalInvalidState'] ?? null;
        for ($i = 0; $i < $count; ++$i) {
            if (null !== $invalid && 0.0 !== $invalid[$i]) {
                continue;
            }
            if (isset($values['cartesianX'], $values['cartesianY'], $values['cartesianZ'])) {
                $place = $pose($values['cartesianX'][$i], $values['cartesianY'][$i], $values['cartesianZ'][$i]);
            } elseif (isset($values['sphericalRange'], $values['sphericalAzimuth'], $values['sphericalElevation'])) {
                [$r, $az, $el] = [$values['sphericalRange'][$i], $values['sphericalAzimuth'][$i], $values['sphericalElevation'][$i]];
                $place = $pose($r * cos($el) * cos($az), $r * cos($el) * sin($az), $r * sin($el));
            } else {
                continue;
            }
            $l->reach(...$place);
            if (null !== $this->each) {
                ($this->each)($name, $place);
            }
        }
    }

    /** Bits of a value in its stream. */
    private static function bits(\SimpleXMLElement $field): int
    {
        if ('Float' === (string) $field['type']) {
            return 'single' === (string) $field['precision'] ? 32 : 64;
        }
        if (!isset($field['maximum'], $field['minimum'])) {
            return 64;
        }
        $range = (int) $field['maximum'] - (int) $field['minimum'];
        $bits = 0;
        while ($bits < 63 && $range >> $bits > 0) {
            ++$bits;
        }

        return $bits;
    }

    /** @return list<float> */
    private static function decoded(string $bytes, \SimpleXMLElement $field, int $count): array
    {
        $bits = self::bits($field);
        if ('Float' === (string) $field['type']) {
            return array_values(array_map(floatval(...), (array) unpack((32 === $bits ? 'g' : 'e').$count, $bytes)));
        }
        $minimum = (int) ($field['minimum'] ?? 0);
        $isScaled = 'ScaledInteger' === (string) $field['type'];
        $scale = $isScaled ? (float) ($field['scale'] ?? 1.0) : 1.0;
        $offset = $isScaled ? (float) ($field['offset'] ?? 0.0) : 0.0;
        $values = [];
        $buffer = $held = $at = 0;
        for ($i = 0; $i < $count; ++$i) {
            while ($held < $bits && $held <= 48) {
                $buffer |= \ord($bytes[$at++] ?? "\0") << $held;
                $held += 8;
            }
            if ($held < $bits) {
                // Wider than the buffer: byte by byte, the whole value lies on byte borders then or nearly so.
                $value = $buffer;
                $got = $held;
                $next = \ord($bytes[$at++] ?? "\0");
                $take = min(8, $bits - $got);
                $value |= ($next & ((1 << $take) - 1)) << $got;
                $got += $take;
                while ($got < $bits) {
                    $next2 = \ord($bytes[$at++] ?? "\0");
                    $take = min(8, $bits - $got);
                    $value |= ($next2 & ((1 << $take) - 1)) << $got;
                    $got += $take;
                    $next = $next2;
                }
                $buffer = $next >> $take;
                $held = 8 - $take;
            } else {
                $value = $buffer & ((1 << $bits) - 1);
                $buffer >>= $bits;
                $held -= $bits;
            }
            $values[] = ($minimum + $value) * $scale + $offset;
        }

        return $values;
    }

    /** @return \Closure(float, float, float): array{float, float, float} */
    private static function pose(?\SimpleXMLElement $pose): \Closure
    {
        $q = [1.0, 0.0, 0.0, 0.0];
        $t = [0.0, 0.0, 0.0];
        if (isset($pose->rotation->w)) {
            $q = [(float) $pose->rotation->w, (float) $pose->rotation->x, (float) $pose->rotation->y, (float) $pose->rotation->z];
        }
        if (isset($pose->translation->x)) {
            $t = [(float) $pose->translation->x, (float) $pose->translation->y, (float) $pose->translation->z];
        }
        [$w, $x, $y, $z] = $q;
        $m = [
            [1 - 2 * ($y * $y + $z * $z), 2 * ($x * $y - $z * $w), 2 * ($x * $z + $y * $w)],
            [2 * ($x * $y + $z * $w), 1 - 2 * ($x * $x + $z * $z), 2 * ($y * $z - $x * $w)],
            [2 * ($x * $z - $y * $w), 2 * ($y * $z + $x * $w), 1 - 2 * ($x * $x + $y * $y)],
        ];

        return static fn (float $px, float $py, float $pz): array => [
            $m[0][0] * $px + $m[0][1] * $py + $m[0][2] * $pz + $t[0], $m[1][0] * $px + $m[1][1] * $py + $m[1][2] * $pz + $t[1],
            $m[2][0] * $px + $m[2][1] * $py + $m[2][2] * $pz + $t[2],
        ];
    }
}
