<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

use Mensura\Fault\UnusableInput;

/** Reads points, texts and polylines of an ASCII DXF, layers included; for checking what was written. */
final class DxfReader
{
    /**
     * @return array{points: list<array{layer: string, at: array{float, float, float}}>, texts: list<array{layer: string, text: string, at: array{float, float, float}}>, lines: list<array{layer: string, vertices: list<array{float, float, float}>}>}
     *
     * @throws UnusableInput
     */
    public static function read(string $dxf): array
    {
        $lines = preg_split('/\r\n|\n/', rtrim($dxf)) ?: [];
        if (0 !== \count($lines) % 2 || 'EOF' !== trim((string) end($lines))) {
            throw new UnusableInput('line '.\count($lines), 'the DXF file is cut off');
        }
        $drawing = ['points' => [], 'texts' => [], 'lines' => []];
        $inEntities = false;
        $type = '';
        $entity = [];
        $polyline = null;
        for ($i = 0, $n = \count($lines); $i < $n; $i += 2) {
            $code = trim($lines[$i]);
            $value = $lines[$i + 1];
            if (!is_numeric($code)) {
                throw new UnusableInput('line '.($i + 1), \sprintf('"%s" is not a group code', substr($code, 0, 20)));
            }
            if ('2' === $code && 'SECTION' === $type) {
                $inEntities = 'ENTITIES' === $value;
            }
            if ('0' === $code) {
                if ($inEntities) {
                    self::finish($type, $entity, $drawing, $polyline);
                }
                $type = $value;
                $entity = [];
                continue;
            }
            $entity[] = [(int) $code, $value];
        }

        return $drawing;
    }

    /**
     * @param list<array{int, string}>                                                                                    $entity
     * @param array{points: list<mixed>, texts: list<mixed>, lines: list<mixed>}                                          $drawing
     * @param ?array{layer: string, vertices: list<array{float, float, float}>}                                           $polyline
     */
    private static function finish(string $type, array $entity, array &$drawing, ?array &$polyline): void
    {
        $first = [];
        foreach ($entity as [$code, $value]) {
            $first[$code] ??= $value;
        }
        $layer = $first[8] ?? '0';
        $at = [(float) ($first[10] ?? 0), (float) ($first[20] ?? 0), (float) ($first[30] ?? 0)];
        switch ($type) {
            case 'POINT':
                $drawing['points'][] = ['layer' => $layer, 'at' => $at];
                break;
            case 'TEXT':
                $text = preg_replace_callback('/\\\\U\+([0-9A-F]{4})/', static fn (array $m): string => (string) mb_chr((int) hexdec($m[1])), $first[1] ?? '') ?? '';
                $drawing['texts'][] = ['layer' => $layer, 'text' => $text, 'at' => $at];
                break;
            case 'POLYLINE':
                $polyline = ['layer' => $layer, 'vertices' => []];
                break;
            case 'VERTEX':
                if (null !== $polyline) {
                    $polyline['vertices'][] = $at;
                }
                break;
            case 'SEQEND':
                if (null !== $polyline) {
                    $drawing['lines'][] = $polyline;
                    $polyline = null;
                }
                break;
            case 'LWPOLYLINE':
                $vertices = [];
                $x = 0.0;
                foreach ($entity as [$code, $value]) {
                    if (10 === $code) {
                        $x = (float) $value;
                    } elseif (20 === $code) {
                        $vertices[] = [$x, (float) $value, (float) ($first[38] ?? 0)];
                    }
                }
                $drawing['lines'][] = ['layer' => $layer, 'vertices' => $vertices];
                break;
        }
    }
}
