<?php

declare(strict_types=1);

namespace Mensura\Mesh;

/**
 * Gives faces that are joined over edges one sense, and turns each joined piece as a whole upward: a wall follows its neighbours.
 * Edges of two faces go before edges of many.
 */
final class Sense
{
    /** @var list<int> corners, three a face */
    public array $faces;

    /**
     * @param list<float>     $x     of the corners, metres
     * @param list<float>     $y
     * @param list<int>       $faces
     * @param list<int>       $edge  of each half-edge
     * @param list<list<int>> $at    half-edges of each edge
     */
    public function __construct(array $x, array $y, array $faces, private readonly array $edge, private readonly array $at)
    {
        $count = intdiv(\count($faces), 3);
        $turned = array_fill(0, $count, null);
        for ($seed = 0; $seed < $count; ++$seed) {
            if (null !== $turned[$seed]) {
                continue;
            }
            $turned[$seed] = false;
            $piece = $this->grow($seed, $faces, $turned);
            $up = 0.0;
            foreach ($piece as $f) {
                [$a, $b, $c] = [$faces[3 * $f], $faces[3 * $f + 1], $faces[3 * $f + 2]];
                $plan = ($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) - ($x[$c] - $x[$a]) * ($y[$b] - $y[$a]);
                $up += true === $turned[$f] ? -$plan : $plan;
            }
            foreach ($piece as $f) {
                if ($turned[$f] !== $up < 0.0) {
                    [$faces[3 * $f + 1], $faces[3 * $f + 2]] = [$faces[3 * $f + 2], $faces[3 * $f + 1]];
                }
            }
        }
        $this->faces = array_values($faces);
    }

    /**
     * @param list<int>             $faces
     * @param array<int, bool|null> $turned of each face, filled here
     *
     * @return list<int> faces joined with the first one
     */
    private function grow(int $seed, array $faces, array &$turned): array
    {
        $piece = [$seed];
        $later = [];
        for ($next = 0;; ++$next) {
            // Where nothing more is joined by an edge of two, go on over an edge of many.
            while ($next >= \count($piece) && null !== $over = array_pop($later)) {
                $this->join($over[0], $over[1], $faces, $turned, $piece);
            }
            if ($next >= \count($piece)) {
                return $piece;
            }
            $f = $piece[$next];
            for ($g = 3 * $f; $g < 3 * $f + 3; ++$g) {
                $halves = $this->at[$this->edge[$g]];
                foreach ($halves as $h) {
                    if (null !== $turned[intdiv($h, 3)]) {
                        continue;
                    }
                    if (\count($halves) > 2) {
                        $later[] = [$g, $h];
                    } else {
                        $this->join($g, $h, $faces, $turned, $piece);
                    }
                }
            }
        }
    }

    /**
     * @param list<int>             $faces
     * @param array<int, bool|null> $turned
     * @param list<int>             $piece
     */
    private function join(int $from, int $to, array $faces, array &$turned, array &$piece): void
    {
        $f = intdiv($to, 3);
        if (null !== $turned[$f]) {
            return;
        }
        // Neighbours run through their edge in opposite ways.
        $turned[$f] = ($faces[$from] === $faces[$to]) !== $turned[intdiv($from, 3)];
        $piece[] = $f;
    }
}
