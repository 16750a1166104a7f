<?php

declare(strict_types=1);

namespace Mensura\Mesh;

use Mensura\Fault\UnusableInput;

/**
 * Triangles in space, walls and overhangs too: corners at one place are one corner, faces joined over edges have one sense, and
 * each joined piece as a whole is turned upward. Coordinates in metres (easting, northing, height).
 */
final readonly class Mesh
{
    /** The edge belongs to one face only. */
    public const BORDER = -1;

    /** More than two faces meet in the edge. */
    public const MANY = -2;

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     * @param list<int>   $triangles corners, three a face, anticlockwise from above or outside
     * @param list<int>   $opposite  of each half-edge (from its corner to the next): the half-edge of the other face, or one of the above
     * @param list<int>   $edge      number of the edge of each half-edge
     */
    private function __construct(
        public array $x, public array $y, public array $z, public array $triangles, public array $opposite, public array $edge,
        public int $edges,
    ) {
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     * @param list<int>   $triangles corners, three a face, in any sense
     *
     * @throws UnusableInput without a face that has an area
     */
    public static function of(array $x, array $y, array $z, array $triangles): self
    {
        $same = (new Corners($x, $y, $z))->same;
        $faces = [];
        $hasArea = false;
        for ($h = 0, $end = \count($triangles); $h < $end; $h += 3) {
            [$a, $b, $c] = [$same[$triangles[$h]], $same[$triangles[$h + 1]], $same[$triangles[$h + 2]]];
            if ($a !== $b && $b !== $c && $c !== $a) {
                array_push($faces, $a, $b, $c);
                $hasArea = $hasArea || self::area($x, $y, $z, $a, $b, $c) > 0.0;
            }
        }
        if (!$hasArea) {
            throw new UnusableInput('', 'holds no face with an area');
        }
        [$edge, $at] = self::edgesOf($faces, \count($x));
        $faces = (new Sense($x, $y, $faces, $edge, $at))->faces;
        // Turning a face round moves its edges to other half-edges.
        [$edge, $at] = self::edgesOf($faces, \count($x));
        $opposite = array_fill(0, \count($faces), self::BORDER);
        foreach ($at as $halves) {
            if (2 === \count($halves)) {
                $opposite[$halves[0]] = $halves[1];
                $opposite[$halves[1]] = $halves[0];
            } elseif (\count($halves) > 2) {
                foreach ($halves as $h) {
                    $opposite[$h] = self::MANY;
                }
            }
        }

        return new self($x, $y, $z, $faces, array_values($opposite), $edge, \count($at));
    }

    /**
     * Twice the area of a triangle, square metres.
     *
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     */
    public static function area(array $x, array $y, array $z, int $a, int $b, int $c): float
    {
        [$ux, $uy, $uz] = [$x[$b] - $x[$a], $y[$b] - $y[$a], $z[$b] - $z[$a]];
        [$vx, $vy, $vz] = [$x[$c] - $x[$a], $y[$c] - $y[$a], $z[$c] - $z[$a]];

        return sqrt(($uy * $vz - $uz * $vy) ** 2 + ($uz * $vx - $ux * $vz) ** 2 + ($ux * $vy - $uy * $vx) ** 2);
    }

    public function faceCount(): int
    {
        return intdiv(\count($this->triangles), 3);
    }

    /**
     * @param list<int> $faces
     *
     * @return array{list<int>, list<list<int>>} number of the edge of each half-edge, and the half-edges of each edge
     */
    private static function edgesOf(array $faces, int $corners): array
    {
        $number = $edge = $at = [];
        foreach ($faces as $h => $u) {
            $v = $faces[2 === $h % 3 ? $h - 2 : $h + 1];
            $key = $u < $v ? $u * $corners + $v : $v * $corners + $u;
            $i = $number[$key] ?? null;
            if (null === $i) {
                $i = \count($at);
                $number[$key] = $i;
                $at[] = [];
            }
            $edge[] = $i;
            $at[$i][] = $h;
        }

        return [$edge, array_values($at)];
    }
}
