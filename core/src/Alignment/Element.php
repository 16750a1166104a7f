<?php

declare(strict_types=1);

namespace Mensura\Alignment;

/**
 * A piece of an alignment whose curvature grows evenly along it: a line (0), an arc (constant) or a clothoid. Metres,
 * radians; curvature 1/R, positive to the right; the bearing counts from north, clockwise.
 */
final readonly class Element
{
    /** Abscissae and weights of the Gauss-Legendre rule of 8 points on -1 to 1 (Abramowitz and Stegun 1964, table 25.4). */
    private const GAUSS = [
        [0.1834346424956498, 0.3626837833783620], [0.5255324099163290, 0.3137066458778873], [0.7966664774136267, 0.2223810344533745],
        [0.9602898564975363, 0.1012285362903763],
    ];

    /** Greatest turn that is integrated at once. */
    private const TURN = 0.5;

    public function __construct(
        public float $e, public float $n, public float $bearing, public float $length, public float $from = 0.0, public float $to = 0.0,
    ) {
    }

    /** @return array{float, float, float} easting, northing and bearing at a length from the begin */
    public function at(float $s): array
    {
        $turn = $this->turned($s);
        if (0.0 === $this->from && 0.0 === $this->to) {
            return [$this->e + $s * sin($this->bearing), $this->n + $s * cos($this->bearing), $this->bearing];
        }
        // Along the curve the turn is a polynomial of degree two; its sine and cosine are integrated in parts of little turn.
        $most = max(abs($this->from), abs($this->curvature($s))) * abs($s);
        $parts = max(1, (int) ceil($most / self::TURN));
        $de = $dn = 0.0;
        for ($k = 0; $k < $parts; ++$k) {
            $half = 0.5 * $s / $parts;
            $middle = (2 * $k + 1) * $half;
            foreach (self::GAUSS as [$x, $w]) {
                foreach ([-$x, $x] as $at) {
                    $angle = $this->bearing + $this->turned($middle + $half * $at);
                    $de += $w * $half * sin($angle);
                    $dn += $w * $half * cos($angle);
                }
            }
        }

        return [$this->e + $de, $this->n + $dn, $this->bearing + $turn];
    }

    public function curvature(float $s): float
    {
        return $this->from + ($this->to - $this->from) * $s / $this->length;
    }

    private function turned(float $s): float
    {
        return $this->from * $s + 0.5 * ($this->to - $this->from) * $s * $s / $this->length;
    }
}
