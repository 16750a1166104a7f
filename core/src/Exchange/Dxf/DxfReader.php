<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

use Mensura\Fault\UnusableInput;

/** Reads points, texts and polylines of an ASCII DXF one after the other, layers included. */
final class DxfReader
{
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
        foreach (DxfRecords::of($file) as $record) {
            if ('ENTITIES' === $record->section && null !== $entity = $this->finished($record)) {
                yield $entity;
            }
        }
    }

    private function finished(DxfRecord $record): ?DxfEntity
    {
        $first = $record->first();
        $layer = $first[8] ?? '0';
        $at = [(float) ($first[10] ?? 0), (float) ($first[20] ?? 0), (float) ($first[30] ?? 0)];
        switch ($record->type) {
            case 'POINT':
                return new DxfEntity('point', $layer, [$at]);
            case 'TEXT':
                return new DxfEntity('text', $layer, [$at], self::unescaped($first[1] ?? ''));
            case 'LWPOLYLINE':
                return new DxfEntity('line', $layer, self::vertices($record->groups(), (float) ($first[38] ?? 0)));
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
