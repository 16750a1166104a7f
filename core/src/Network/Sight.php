<?php

declare(strict_types=1);

namespace Mensura\Network;

/**
 * One line of sight from instrument to target, in the horizon of the instrument's station.
 *
 * The derivatives of east, north and up by the local shifts of both stations include the turning of the
 * horizon as the instrument moves over the ellipsoid (meridian convergence and tilt).
 */
final class Sight
{
    public float $east;
    public float $north;
    public float $up;
    public float $length;
    public float $plan;

    /** @var array<int, float> nine values by e, n, h of the from station; rows east, north, up */
    public array $byFrom;

    /** @var array<int, float> the same for the to station */
    public array $byTo;

    public float $meanRadius;

    public function __construct(private readonly NetworkState $state, private readonly bool $plane)
    {
    }

    public function aim(int $from, int $to, float $hi, float $ht): void
    {
        $s = $this->state;
        if ($this->plane) {
            $this->east = $s->e[$to] - $s->e[$from];
            $this->north = $s->n[$to] - $s->n[$from];
            $this->up = $s->h[$to] + $ht - $s->h[$from] - $hi;
            $this->byFrom = [-1.0, 0.0, 0.0, 0.0, -1.0, 0.0, 0.0, 0.0, -1.0];
            $this->byTo = [1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0];
            $this->meanRadius = \INF;
        } else {
            $f3 = 3 * $from;
            $t3 = 3 * $to;
            $f = 9 * $from;
            $t = 9 * $to;
            $p = $s->position;
            $a = $s->axes;
            $dx = $p[$t3] + $ht * $a[$t + 6] - $p[$f3] - $hi * $a[$f + 6];
            $dy = $p[$t3 + 1] + $ht * $a[$t + 7] - $p[$f3 + 1] - $hi * $a[$f + 7];
            $dz = $p[$t3 + 2] + $ht * $a[$t + 8] - $p[$f3 + 2] - $hi * $a[$f + 8];
            $e = $a[$f] * $dx + $a[$f + 1] * $dy + $a[$f + 2] * $dz;
            $n = $a[$f + 3] * $dx + $a[$f + 4] * $dy + $a[$f + 5] * $dz;
            $u = $a[$f + 6] * $dx + $a[$f + 7] * $dy + $a[$f + 8] * $dz;
            $this->east = $e;
            $this->north = $n;
            $this->up = $u;
            $cm = $s->curvature[$f3];
            $cv = $s->curvature[$f3 + 1];
            $ct = $s->curvature[$f3 + 2];
            $this->meanRadius = 1.0 / sqrt($cm * $cv);
            // Local shift (east, north, up) of the instrument's station: translation and turning of its horizon.
            $b = [
                -1.0 + $n * $ct - $u * $cv, 0.0, 0.0,
                -$e * $ct, -1.0 - $u * $cm, 0.0,
                $e * $cv, $n * $cm, -1.0,
            ];
            $j = $s->jacobian;
            $byFrom = $byTo = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
            for ($r = 0; $r < 9; $r += 3) {
                $b0 = $b[$r];
                $b1 = $b[$r + 1];
                $b2 = $b[$r + 2];
                $byFrom[$r] = $b0 * $j[$f] + $b1 * $j[$f + 3] + $b2 * $j[$f + 6];
                $byFrom[$r + 1] = $b0 * $j[$f + 1] + $b1 * $j[$f + 4] + $b2 * $j[$f + 7];
                $byFrom[$r + 2] = $b0 * $j[$f + 2] + $b1 * $j[$f + 5] + $b2 * $j[$f + 8];
                // Axes of the instrument times the target station's axes transposed.
                $c0 = $a[$f + $r] * $a[$t] + $a[$f + $r + 1] * $a[$t + 1] + $a[$f + $r + 2] * $a[$t + 2];
                $c1 = $a[$f + $r] * $a[$t + 3] + $a[$f + $r + 1] * $a[$t + 4] + $a[$f + $r + 2] * $a[$t + 5];
                $c2 = $a[$f + $r] * $a[$t + 6] + $a[$f + $r + 1] * $a[$t + 7] + $a[$f + $r + 2] * $a[$t + 8];
                $byTo[$r] = $c0 * $j[$t] + $c1 * $j[$t + 3] + $c2 * $j[$t + 6];
                $byTo[$r + 1] = $c0 * $j[$t + 1] + $c1 * $j[$t + 4] + $c2 * $j[$t + 7];
                $byTo[$r + 2] = $c0 * $j[$t + 2] + $c1 * $j[$t + 5] + $c2 * $j[$t + 8];
            }
            $this->byFrom = $byFrom;
            $this->byTo = $byTo;
        }
        $this->plan = hypot($this->east, $this->north);
        $this->length = hypot($this->plan, $this->up);
    }

    public function azimuth(): float
    {
        return atan2($this->east, $this->north);
    }

    /**
     * Derivatives of a function of (east, north, up) by the coordinates of both stations.
     *
     * @return array{float, float, float, float, float, float} from e, n, h; to e, n, h
     */
    public function chain(float $gE, float $gN, float $gU): array
    {
        $f = $this->byFrom;
        $t = $this->byTo;

        return [
            $gE * $f[0] + $gN * $f[3] + $gU * $f[6],
            $gE * $f[1] + $gN * $f[4] + $gU * $f[7],
            $gE * $f[2] + $gN * $f[5] + $gU * $f[8],
            $gE * $t[0] + $gN * $t[3] + $gU * $t[6],
            $gE * $t[1] + $gN * $t[4] + $gU * $t[7],
            $gE * $t[2] + $gN * $t[5] + $gU * $t[8],
        ];
    }
}
