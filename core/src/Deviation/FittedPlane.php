<?php

declare(strict_types=1);

namespace Mensura\Deviation;

use Mensura\Fault\UnusableInput;
use Mensura\LinearAlgebra\SymmetricEigen;

/**
 * The plane through points with the least sum of squared distances at right angles to it: through their centre, its normal the
 * direction of least spread (Pearson 1901, "On lines and planes of closest fit"; eigenvectors by Jacobi rotations).
 */
final readonly class FittedPlane implements Reference
{
    /** Spread across the line of the points, as a part of the spread along it, below which they determine no plane. */
    private const LINE = 1e-9;

    /** Height of the normal below which the plane counts as upright. */
    private const UPRIGHT = 1e-9;

    /**
     * @param array{float, float, float} $normal unit, upward
     * @param array{float, float, float} $point  centre of the points, metres
     * @param ?float                     $sd     of a point off the plane, metres; null for three points
     */
    private function __construct(public array $normal, public array $point, public ?float $sd)
    {
    }

    /**
     * @param list<float> $x metres
     * @param list<float> $y
     * @param list<float> $z
     *
     * @throws UnusableInput for fewer than three points, or points on one line
     */
    public static function through(array $x, array $y, array $z): self
    {
        $n = \count($x);
        if ($n < 3) {
            throw new UnusableInput('', \sprintf('a plane needs three points; there are %d', $n));
        }
        // From the first point, so that sums of large coordinates lose nothing.
        [$x0, $y0, $z0] = [$x[0], $y[0], $z[0]];
        $sx = $sy = $sz = 0.0;
        for ($i = 0; $i < $n; ++$i) {
            $sx += $x[$i] - $x0;
            $sy += $y[$i] - $y0;
            $sz += $z[$i] - $z0;
        }
        $point = [$x0 + $sx / $n, $y0 + $sy / $n, $z0 + $sz / $n];
        $m = array_fill(0, 3, [0.0, 0.0, 0.0]);
        for ($i = 0; $i < $n; ++$i) {
            $d = [$x[$i] - $x0 - $sx / $n, $y[$i] - $y0 - $sy / $n, $z[$i] - $z0 - $sz / $n];
            for ($r = 0; $r < 3; ++$r) {
                for ($c = 0; $c < 3; ++$c) {
                    $m[$r][$c] += $d[$r] * $d[$c];
                }
            }
        }
        [$values, $vectors] = SymmetricEigen::ofThree($m);
        asort($values);
        [$least, $middle, $most] = array_keys($values);
        if (!($values[$middle] > self::LINE ** 2 * $values[$most])) {
            throw new UnusableInput('', 'the points lie on one line and determine no plane');
        }
        $normal = [$vectors[0][$least], $vectors[1][$least], $vectors[2][$least]];
        $length = sqrt($normal[0] ** 2 + $normal[1] ** 2 + $normal[2] ** 2) * ($normal[2] < 0.0 ? -1.0 : 1.0);
        $normal = [$normal[0] / $length, $normal[1] / $length, $normal[2] / $length];
        $squares = 0.0;
        for ($i = 0; $i < $n; ++$i) {
            $squares += (($x[$i] - $point[0]) * $normal[0] + ($y[$i] - $point[1]) * $normal[1] + ($z[$i] - $point[2]) * $normal[2]) ** 2;
        }

        return new self($normal, $point, $n > 3 ? sqrt($squares / ($n - 3)) : null);
    }

    public function deviations(array $x, array $y, array $z, Along $along, ?\Closure $progress = null): array
    {
        [$nx, $ny, $nz] = $this->normal;
        [$px, $py, $pz] = $this->point;
        if (Along::Vertical === $along && $nz < self::UPRIGHT) {
            throw new UnusableInput('--along', 'the plane is upright: nothing lies vertically above it; compare along the normal');
        }
        $by = Along::Vertical === $along ? $nz : 1.0;
        $found = [];
        foreach ($x as $i => $e) {
            $found[] = (($e - $px) * $nx + ($y[$i] - $py) * $ny + ($z[$i] - $pz) * $nz) / $by;
        }

        return $found;
    }

    public function steepest(): ?float
    {
        return $this->normal[2] < self::UPRIGHT ? null : hypot($this->normal[0], $this->normal[1]) / $this->normal[2];
    }
}
