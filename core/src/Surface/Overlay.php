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
        $tx = $tin->x;
        $ty = $tin->y;
        $tz = $tin->z;
        $ox = $other->x;
        $oy = $other->y;
        // Plain assignments: taking arrays apart would make one for each of millions of pairs.
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            $a = $t[$h];
            $b = $t[$h + 1];
            $c = $t[$h + 2];
            $ax = $tx[$a];
            $ay = $ty[$a];
            $bx = $tx[$b];
            $by = $ty[$b];
            $cx = $tx[$c];
            $cy = $ty[$c];
            $west = min($ax, $bx, $cx);
            $east = max($ax, $bx, $cx);
            $south = min($ay, $by, $cy);
            $north = max($ay, $by, $cy);
            $abx = $bx - $ax;
            $aby = $by - $ay;
            $bcx = $cx - $bx;
            $bcy = $cy - $by;
            $cax = $ax - $cx;
            $cay = $ay - $cy;
            foreach ($locator->near($west, $south, $east, $north) as $g) {
                $u = $o[$g];
                $v = $o[$g + 1];
                $w = $o[$g + 2];
                $ux = $ox[$u];
                $vx = $ox[$v];
                $wx = $ox[$w];
                if ($ux < $west && $vx < $west && $wx < $west || $ux > $east && $vx > $east && $wx > $east) {
                    continue;
                }
                $uy = $oy[$u];
                $vy = $oy[$v];
                $wy = $oy[$w];
                // Most pairs only lie near each other: an edge of one has the whole other on its outer side.
                if ($uy < $south && $vy < $south && $wy < $south || $uy > $north && $vy > $north && $wy > $north
                    || $abx * ($uy - $ay) < $aby * ($ux - $ax) && $abx * ($vy - $ay) < $aby * ($vx - $ax)
                        && $abx * ($wy - $ay) < $aby * ($wx - $ax)
                    || $bcx * ($uy - $by) < $bcy * ($ux - $bx) && $bcx * ($vy - $by) < $bcy * ($vx - $bx)
                        && $bcx * ($wy - $by) < $bcy * ($wx - $bx)
                    || $cax * ($uy - $cy) < $cay * ($ux - $cx) && $cax * ($vy - $cy) < $cay * ($vx - $cx)
                        && $cax * ($wy - $cy) < $cay * ($wx - $cx)) {
                    continue;
                }
                [$px, $py, $pz] = self::leftOf([$ax, $bx, $cx], [$ay, $by, $cy], [$tz[$a], $tz[$b], $tz[$c]], $ux, $uy, $vx, $vy);
                [$px, $py, $pz] = self::leftOf($px, $py, $pz, $vx, $vy, $wx, $wy);
                [$px, $py, $pz] = self::leftOf($px, $py, $pz, $wx, $wy, $ux, $uy);
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
        $out = 0;
        for ($k = 0; $k < $n; ++$k) {
            $side[] = $s = ($vx - $ux) * ($y[$k] - $uy) - ($vy - $uy) * ($x[$k] - $ux);
            $out += $s < 0.0 ? 1 : 0;
        }
        if (0 === $out) {
            return [$x, $y, $z];
        }
        $ox = $oy = $oz = [];
        for ($k = 0; $k < $n && $out < $n; ++$k) {
            $m = $k + 1 === $n ? 0 : $k + 1;
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
