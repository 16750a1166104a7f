<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Exchange\Ply\PlyReader;
use Mensura\Fault\UnusableInput;

/** PLY: vertices are points where there are no faces, too; the order of bytes and the lengths are those of the header. */
final class PlyLook
{
    /** Vertices that are read one by one. */
    private const MOST = 3_000_000;

    /** @param resource $stream */
    public static function read(Looked $l, $stream, string $name): void
    {
        $head = '';
        while (!str_contains($head, 'end_header') && \strlen($head) < 65536 && false !== $line = fgets($stream, 4096)) {
            $head .= $line;
        }
        if (!str_contains($head, 'end_header')) {
            throw new UnusableInput($name, 'is cut off in its header');
        }
        preg_match_all('/^element\s+(\w+)\s+(\d+)/m', $head, $elements, \PREG_SET_ORDER);
        $counts = [];
        foreach ($elements as [, $element, $count]) {
            $counts[$element] = (int) $count;
        }
        if (1 === preg_match('/^element\s+vertex\b.*?(?=^element|^end_header)/ms', $head, $m)) {
            preg_match_all('/^property\s+(?!list)\w+\s+(\w+)/m', $m[0], $properties);
            foreach (array_diff($properties[1], ['x', 'y', 'z']) as $property) {
                $l->attribute($property);
            }
        }
        if (($counts['vertex'] ?? 0) > self::MOST) {
            $size = (int) (fstat($stream)['size'] ?? 0);
            if ($counts['vertex'] * 3 > $size) {
                throw new UnusableInput($name, \sprintf('says %d vertices in %d bytes: it is cut off', $counts['vertex'], $size));
            }
            $l->count(Looked::POINT, $counts['vertex']);
            $l->count(Looked::FACE, $counts['face'] ?? 0);
            $l->warn(\sprintf('has more than %d vertices: its extent is not looked for', self::MOST));

            return;
        }
        rewind($stream);
        $ply = PlyReader::read($stream, $name);
        foreach ($ply->x as $i => $x) {
            $l->reach($x, $ply->y[$i], $ply->z[$i]);
        }
        $l->count(Looked::POINT, \count($ply->x));
        $l->count(Looked::FACE, $counts['face'] ?? 0);
    }
}
