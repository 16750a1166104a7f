<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Corners;

/**
 * The pieces two surfaces cut each other into, plan seen: over each of them both are plane, so that what lies between is a
 * prism with plane ends. Flat arrays; metres.
 */
final readonly class Overlay
{
    /**
     * @param list<float> $x        of the pieces' corners
     * @param list<float> $y
     * @param list<float> $upper    height of the surface there
     * @param list<float> $lower    height of what it is compared with
     * @param list<int>   $triangles three corners each, anticlockwise
     */
    private function __construct(public array $x, public array $y, public array $upper, public array $lower, public array $triangles)
    {
    }

    public static function withElevation(Tin $tin, float $elevation): self
    {
        return new self($tin->x, $tin->y, $tin->z, array_fill(0, max(1, \count($tin->x)), $elevation), $tin->triangles);
    }

    /** @throws UnusableInput no common area */
    public static function withSurface(Tin $tin, Tin $other): self
    {
        $x = $y = $upper = $lower = [];
        /** @var list<int> $triangles */
        $triangles = [];
        $keep = static function (array $px, array $py, array $pu, array $pl, int $n) use (&$x, &$y, &$upper, &$lower, &$triangles): void {
            $first = \count($x);
            for ($k = 0; $k < $n; ++$k) {
                $x[] = $px[$k];
                $y[] = $py[$k];
                $upper[] = $pu[$k];
                $lower[] = $pl[$k];
                if ($k > 1) {
                    array_push($triangles, $first, $first + $k - 1, $first + $k);
                }
            }
        };
        (new Pieces($tin, $other))->each($keep);
        if ([] === $triangles) {
            throw new UnusableInput('', 'the two surfaces have no common area');
        }

        return new self($x, $y, $upper, $lower, $triangles);
    }

    /**
     * What lies between, as a surface of its own: heights are differences, positive where the surface is above. Corners
     * that meet are one, so that lines of equal difference run through.
     */
    public function isopach(): Tin
    {
        $difference = [];
        foreach ($this->upper as $i => $height) {
            $difference[] = $height - $this->lower[$i];
        }
        $same = (new Corners($this->x, $this->y, array_fill(0, \count($this->x), 0.0)))->same;
        $number = $x = $y = $z = [];
        foreach ($same as $i => $first) {
            if (!isset($number[$first])) {
                $number[$first] = \count($x);
                $x[] = $this->x[$i];
                $y[] = $this->y[$i];
                $z[] = $difference[$i];
            }
        }
        $triangles = [];
        for ($h = 0, $end = \count($this->triangles); $h < $end; $h += 3) {
            $a = $number[$same[$this->triangles[$h]]];
            $b = $number[$same[$this->triangles[$h + 1]]];
            $c = $number[$same[$this->triangles[$h + 2]]];
            // What became a line on merging holds nothing.
            if ($a !== $b && $b !== $c && $a !== $c && ($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) > ($x[$c] - $x[$a]) * ($y[$b] - $y[$a])) {
                array_push($triangles, $a, $b, $c);
            }
        }

        return Tin::ofTriangles($x, $y, $z, $triangles);
    }
}
