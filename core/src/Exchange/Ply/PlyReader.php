<?php

declare(strict_types=1);

namespace Mensura\Exchange\Ply;

use Mensura\Fault\UnusableInput;

/**
 * PLY 1.0 (Turk 1994, "The PLY Polygon File Format"): ASCII, and binary of both byte orders. Elements "vertex" with x, y, z and
 * "face" with a list of corners; faces of more than three are divided like a fan. Others are passed over.
 */
final class PlyReader
{
    /** Of a type: unpack code for little and big ends, bytes. */
    private const TYPES = [
        'char' => ['c', 'c', 1], 'int8' => ['c', 'c', 1], 'uchar' => ['C', 'C', 1], 'uint8' => ['C', 'C', 1],
        'short' => ['v', 'n', 2], 'int16' => ['v', 'n', 2], 'ushort' => ['v', 'n', 2], 'uint16' => ['v', 'n', 2],
        'int' => ['V', 'N', 4], 'int32' => ['V', 'N', 4], 'uint' => ['V', 'N', 4], 'uint32' => ['V', 'N', 4],
        'float' => ['g', 'G', 4], 'float32' => ['g', 'G', 4], 'double' => ['e', 'E', 8], 'float64' => ['e', 'E', 8],
    ];
    private const LONGEST_HEADER = 65536;

    /** @var list<float> */
    public array $x = [];
    /** @var list<float> */
    public array $y = [];
    /** @var list<float> */
    public array $z = [];
    /** @var list<int> corners, three a triangle */
    public array $triangles = [];

    private string $order = '';

    /** @var list<array{name: string, count: int, properties: list<array{name: string, type: string, of: ?string}>}> */
    private array $elements = [];

    /**
     * @param resource $stream
     *
     * @throws UnusableInput naming the line or the record
     */
    public static function read($stream, string $name): self
    {
        $self = new self();
        $line = $self->header($stream, $name);
        foreach ($self->elements as $element) {
            for ($k = 0; $k < $element['count']; ++$k) {
                ++$line;
                $values = 'ascii' === $self->order
                    ? $self->asciiRecord($stream, $element['properties'], "$name line $line")
                    : $self->binaryRecord($stream, $element['properties'], $element['name'].' '.$k, $name);
                if ('vertex' === $element['name']) {
                    $self->vertex($values, $name, $k);
                } elseif ('face' === $element['name']) {
                    $self->face($values, $name, $k);
                }
            }
        }

        return $self;
    }

    /** @param resource $stream */
    private function header($stream, string $name): int
    {
        $number = 0;
        $bytes = 0;
        while (false !== $text = fgets($stream, 4096)) {
            ++$number;
            $bytes += \strlen($text);
            $words = preg_split('/\s+/', trim($text)) ?: [''];
            if (1 === $number && 'ply' !== $words[0]) {
                throw new UnusableInput("$name line 1", 'is no PLY file: it does not begin with "ply"');
            }
            if ('format' === $words[0]) {
                $this->order = $words[1] ?? '';
            } elseif ('element' === $words[0]) {
                if (!ctype_digit($words[2] ?? '')) {
                    throw new UnusableInput("$name line $number", 'an element has no count');
                }
                $this->elements[] = ['name' => $words[1], 'count' => (int) $words[2], 'properties' => []];
            } elseif ('property' === $words[0] && [] !== $this->elements) {
                $isList = 'list' === ($words[1] ?? '');
                $types = $isList ? [$words[3] ?? '', $words[2] ?? ''] : [$words[1] ?? '', null];
                foreach ($types as $type) {
                    if (null !== $type && !isset(self::TYPES[$type])) {
                        throw new UnusableInput("$name line $number", \sprintf('"%s" is no type of a PLY file', $type));
                    }
                }
                $this->elements[\count($this->elements) - 1]['properties'][] = [
                    'name' => $words[$isList ? 4 : 2] ?? '', 'type' => $types[0], 'of' => $types[1],
                ];
            } elseif ('end_header' === $words[0]) {
                if (!\in_array($this->order, ['ascii', 'binary_little_endian', 'binary_big_endian'], true)) {
                    throw new UnusableInput($name, \sprintf('its format "%s" is none of a PLY file', $this->order));
                }

                return $number;
            }
            if ($bytes > self::LONGEST_HEADER) {
                break;
            }
        }
        throw new UnusableInput($name, 'the header of the PLY file has no end');
    }

    /**
     * @param resource                                                  $stream
     * @param list<array{name: string, type: string, of: ?string}> $properties
     *
     * @return array<string, float|list<float>>
     */
    private function asciiRecord($stream, array $properties, string $where): array
    {
        $text = fgets($stream);
        if (false === $text) {
            throw new UnusableInput($where, 'the PLY file is cut off');
        }
        $words = preg_split('/\s+/', trim($text)) ?: [];
        $at = 0;
        $next = static function () use ($words, &$at, $where): float {
            $word = $words[$at++] ?? throw new UnusableInput($where, 'has too few values');

            return is_numeric($word) ? (float) $word : throw new UnusableInput($where, \sprintf('"%s" is not a number', $word));
        };
        $values = [];
        foreach ($properties as $p) {
            if (null === $p['of']) {
                $values[$p['name']] = $next();
                continue;
            }
            $list = [];
            for ($n = (int) $next(); $n > 0; --$n) {
                $list[] = $next();
            }
            $values[$p['name']] = $list;
        }

        return $values;
    }

    /**
     * @param resource                                                  $stream
     * @param list<array{name: string, type: string, of: ?string}> $properties
     *
     * @return array<string, float|list<float>>
     */
    private function binaryRecord($stream, array $properties, string $record, string $name): array
    {
        $values = [];
        foreach ($properties as $p) {
            if (null === $p['of']) {
                $values[$p['name']] = $this->number($stream, $p['type'], $record, $name);
                continue;
            }
            $list = [];
            for ($n = (int) $this->number($stream, $p['of'], $record, $name); $n > 0; --$n) {
                $list[] = $this->number($stream, $p['type'], $record, $name);
            }
            $values[$p['name']] = $list;
        }

        return $values;
    }

    /** @param resource $stream */
    private function number($stream, string $type, string $record, string $name): float
    {
        [$little, $big, $size] = self::TYPES[$type];
        $bytes = fread($stream, $size);
        if (false === $bytes || \strlen($bytes) < $size) {
            throw new UnusableInput($name, \sprintf('the PLY file is cut off at %s', $record));
        }
        $value = unpack('binary_little_endian' === $this->order ? $little : $big, $bytes)[1] ?? 0;
        $bits = 8 * $size;
        // unpack knows whole numbers of chosen ends without a sign only.
        if (\is_int($value) && $bits > 8 && 'u' !== $type[0] && $value >= 1 << $bits - 1) {
            $value -= 1 << $bits;
        }

        return (float) $value;
    }

    /** @param array<string, float|list<float>> $values */
    private function vertex(array $values, string $name, int $k): void
    {
        foreach (['x', 'y', 'z'] as $axis) {
            $value = $values[$axis] ?? null;
            if (!\is_float($value) || !is_finite($value)) {
                throw new UnusableInput($name, \sprintf('vertex %d has no %s', $k, $axis));
            }
            $this->{$axis}[] = $value;
        }
    }

    /** @param array<string, float|list<float>> $values */
    private function face(array $values, string $name, int $k): void
    {
        $corners = $values['vertex_indices'] ?? $values['vertex_index'] ?? [];
        if (!\is_array($corners)) {
            return;
        }
        $count = \count($this->x);
        foreach ($corners as $c) {
            if ($c < 0.0 || $c >= $count) {
                throw new UnusableInput($name, \sprintf('face %d names vertex %d; there are %d', $k, (int) $c, $count));
            }
        }
        for ($i = 2, $n = \count($corners); $i < $n; ++$i) {
            array_push($this->triangles, (int) $corners[0], (int) $corners[$i - 1], (int) $corners[$i]);
        }
    }
}
