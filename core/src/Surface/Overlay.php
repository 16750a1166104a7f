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
        $x = $y = $upper = $lower = $triangles = [];
        $keep = static function (array $px, array $py, array $pu, array $pl) use (&$x, &$y, &$upper, &$lower, &$triangles): void {
            $first = \count($x);
            foreach ($px as $k => $value) {
                $x[] = $value;
                $y[] = $py[$k];
                $upper[] = $pu[$k];
                $lower[] = $pl[$k];
                if ($k > 1) {
                    array_push($triangles, $first, $first + $k - 1, $first + $k);
                }
            }
        };
        self::walk($tin, $other, $keep);
        if ([] === $triangles) {
            throw new UnusableInput('', 'the two surfaces have no common area');
        }

        return new self($x, $y, $upper, $lower, $triangles);
    }

    /**
     * Gives every piece: corners in order, height of the surface and of the other at each (Sutherland and Hodgman 1974 on
     * the pairs of triangles whose boxes meet).
     *
     * @param \Closure(list<float>, list<float>, list<float>, list<float>): void $piece
     */
    public static function walk(Tin $tin, Tin $other, \Closure $piece): void
    {
        $locator = new Locator($other);
        $t = $tin->triangles;
        $o = $other->triangles;
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            [$a, $b, $c] = [$t[$h], $t[$h + 1], $t[$h + 2]];
            $x = [$tin->x[$a], $tin->x[$b], $tin->x[$c]];
            $y = [$tin->y[$a], $tin->y[$b], $tin->y[$c]];
            $z = [$tin->z[$a], $tin->z[$b], $tin->z[$c]];
            foreach ($locator->near(min($x), min($y), max($x), max($y)) as $g) {
                [$px, $py, $pz] = [$x, $y, $z];
                for ($k = 0; $k < 3 && [] !== $px; ++$k) {
                    $u = $o[$g + $k];
                    $v = $o[$g + ($k + 1) % 3];
                    [$px, $py, $pz] = self::leftOf($px, $py, $pz, $other->x[$u], $other->y[$u], $other->x[$v], $other->y[$v]);
                }
                if (\count($px) < 3) {
                    continue;
                }
                $below = [];
                foreach ($px as $k => $value) {
                    $below[] = $locator->heightIn($g, $value, $py[$k]);
                }
                $piece($px, $py, $pz, $below);
            }
        }
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

    /**
     * The part of a convex polygon left of a line.
     *
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private static function leftOf(array $x, array $y, array $z, float $ux, float $uy, float $vx, float $vy): array
    {
        $n = \count($x);
        $side = [];
        for ($k = 0; $k < $n; ++$k) {
            $side[] = ($vx - $ux) * ($y[$k] - $uy) - ($vy - $uy) * ($x[$k] - $ux);
        }
        $ox = $oy = $oz = [];
        for ($k = 0; $k < $n; ++$k) {
            $m = ($k + 1) % $n;
            if ($side[$k] >= 0.0) {
                $ox[] = $x[$k];
                $oy[] = $y[$k];
                $oz[] = $z[$k];
            }
            if ($side[$k] > 0.0 && $side[$m] < 0.0 || $side[$k] < 0.0 && $side[$m] > 0.0) {
                $f = $side[$k] / ($side[$k] - $side[$m]);
                $ox[] = $x[$k] + $f * ($x[$m] - $x[$k]);
                $oy[] = $y[$k] + $f * ($y[$m] - $y[$k]);
                $oz[] = $z[$k] + $f * ($z[$m] - $z[$k]);
            }
        }

        return [$ox, $oy, $oz];
    }
}
