<?php

declare(strict_types=1);

namespace Mensura\Exchange\MeshBytes;

use Mensura\Surface\Tin;

/**
 * A surface as bytes: vertex and triangle counts (uint32 little-endian), x y z per vertex (float64), three vertex
 * numbers per triangle (uint32). What the store keeps is what the browser draws.
 */
final class MeshCodec
{
    public static function encode(Tin $tin): string
    {
        $number = [];
        $vertices = $faces = [];
        foreach ($tin->triangles as $v) {
            if (!isset($number[$v])) {
                $number[$v] = \count($number);
                $vertices[] = $tin->x[$v];
                $vertices[] = $tin->y[$v];
                $vertices[] = $tin->z[$v];
            }
            $faces[] = $number[$v];
        }
        $bytes = pack('VV', \count($number), $tin->triangleCount());
        foreach (array_chunk($vertices, 3000) as $chunk) {
            $bytes .= pack('e*', ...$chunk);
        }
        foreach (array_chunk($faces, 3000) as $chunk) {
            $bytes .= pack('V*', ...$chunk);
        }

        return $bytes;
    }

    public static function decode(string $bytes): Tin
    {
        return Tin::ofTriangles(...self::arrays($bytes));
    }

    /** @return array{list<float>, list<float>, list<float>, list<int>} x, y, z, corners three a triangle */
    public static function arrays(string $bytes): array
    {
        ['n' => $n, 't' => $t] = unpack('Vn/Vt', $bytes) ?: throw new \UnexpectedValueException('Not a surface.');
        $values = array_values(unpack('e*', substr($bytes, 8, 24 * $n)) ?: []);
        $triangles = array_values(unpack('V*', substr($bytes, 8 + 24 * $n, 12 * $t)) ?: []);
        $x = $y = $z = [];
        for ($i = 0; $i < $n; ++$i) {
            $x[] = $values[3 * $i];
            $y[] = $values[3 * $i + 1];
            $z[] = $values[3 * $i + 2];
        }

        return [$x, $y, $z, $triangles];
    }
}
