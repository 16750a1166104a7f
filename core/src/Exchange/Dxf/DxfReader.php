<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

use Mensura\Fault\UnusableInput;

/** Reads points, texts and polylines of an ASCII DXF one after the other, layers included. */
final class DxfReader
{
    private const LONGEST_LINE = 65536;

    /** @var ?array{string, list<array{float, float, float}>} layer and vertices of the polyline that is open */
    private ?array $polyline = null;

    /**
     * @return \Generator<DxfEntity>
     *
     * @throws UnusableInput naming the line
     */
    public static function entities(string $path): \Generator
    {
        $file = fopen($path, 'r') ?: throw new UnusableInput('', 'the DXF file cannot be read');
        try {
            yield from (new self())->read($file);
        } finally {
            fclose($file);
        }
    }

    /**
     * @param resource $file
     *
     * @return \Generator<DxfEntity>
     */
    private function read($file): \Generator
    {
        $inEntities = $isOver = false;
        $type = '';
        $groups = [];
        $line = 0;
        while (false !== $code = fgets($file, self::LONGEST_LINE)) {
            $value = fgets($file, self::LONGEST_LINE);
            $code = trim($code);
            ++$line;
            if ('' === $code && false === $value) {
                break; // an empty line at the end
            }
            if (!is_numeric($code)) {
                throw new UnusableInput('line '.$line, \sprintf('"%s" is not a group code of a DXF file', substr($code, 0, 20)));
            }
            if (false === $value) {
                throw new UnusableInput('line '.$line, 'the DXF file is cut off');
            }
            $value = rtrim($value, "\r\n");
            ++$line;
            if ('2' === $code && 'SECTION' === $type) {
                $inEntities = 'ENTITIES' === $value;
            }
            if ('0' !== $code) {
                $groups[] = [(int) $code, $value];
                continue;
            }
            if ($inEntities && null !== $entity = $this->finished($type, $groups)) {
                yield $entity;
            }
            $type = trim($value);
            $groups = [];
            $isOver = 'EOF' === $type;
        }
        if (!$isOver) {
            throw new UnusableInput('line '.$line, 'the DXF file is cut off');
        }
    }

    /** @param list<array{int, string}> $groups */
    private function finished(string $type, array $groups): ?DxfEntity
    {
        $first = [];
        foreach ($groups as [$code, $value]) {
            $first[$code] ??= $value;
        }
        $layer = $first[8] ?? '0';
        $at = [(float) ($first[10] ?? 0), (float) ($first[20] ?? 0), (float) ($first[30] ?? 0)];
        switch ($type) {
            case 'POINT':
                return new DxfEntity('point', $layer, [$at]);
            case 'TEXT':
                return new DxfEntity('text', $layer, [$at], self::unescaped($first[1] ?? ''));
            case 'LWPOLYLINE':
                return new DxfEntity('line', $layer, self::vertices($groups, (float) ($first[38] ?? 0)));
            case 'POLYLINE':
                $this->polyline = [$layer, []];
                break;
            case 'VERTEX':
                if (null !== $this->polyline) {
                    $this->polyline[1][] = $at;
                }
                break;
            case 'SEQEND':
                $line = null === $this->polyline ? null : new DxfEntity('line', $this->polyline[0], $this->polyline[1]);
                $this->polyline = null;

                return $line;
        }

        return null;
    }

    /**
     * @param list<array{int, string}> $groups
     *
     * @return list<array{float, float, float}>
     */
    private static function vertices(array $groups, float $elevation): array
    {
        $vertices = [];
        $x = 0.0;
        foreach ($groups as [$code, $value]) {
            if (10 === $code) {
                $x = (float) $value;
            } elseif (20 === $code) {
                $vertices[] = [$x, (float) $value, $elevation];
            }
        }

        return $vertices;
    }

    private static function unescaped(string $text): string
    {
        $character = static fn (array $m): string => (string) mb_chr((int) hexdec($m[1]));

        return preg_replace_callback('/\\\\U\+([0-9A-F]{4})/', $character, $text) ?? '';
    }
}
