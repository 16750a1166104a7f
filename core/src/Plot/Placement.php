<?php

declare(strict_types=1);

namespace Mensura\Plot;

use Mensura\Fault\UnusableInput;

/**
 * The ground in a window of a sheet, true to scale. Ground: easting and northing in metres; paper: millimetres right and down from
 * the sheet's upper left corner.
 */
final readonly class Placement
{
    private float $cos;
    private float $sin;

    /** Millimetres of paper to a metre of ground. */
    private float $factor;

    /**
     * @param float $left        of the window, millimetres
     * @param float $e           in the middle of the window
     * @param float $denominator of the scale: 500 for 1:500
     * @param float $rotation    of the ground on the paper, degrees clockwise: grid north then points right of up
     *
     * @throws UnusableInput
     */
    public function __construct(
        public float $left, public float $top, public float $width, public float $height, public float $e, public float $n,
        public float $denominator, public float $rotation = 0.0,
    ) {
        if (!($denominator > 0.0)) {
            throw new UnusableInput('/scale', 'is the number after 1: of a scale, greater than nothing');
        }
        if (!($width > 0.0) || !($height > 0.0)) {
            throw new UnusableInput('/width', 'a window has a width and a height');
        }
        $this->factor = 1000.0 / $denominator;
        $this->cos = cos(deg2rad($rotation));
        $this->sin = sin(deg2rad($rotation));
    }

    /** @return array{float, float} millimetres right and down */
    public function paper(float $e, float $n): array
    {
        [$x, $y] = [$this->factor * ($e - $this->e), $this->factor * ($n - $this->n)];

        return [
            $this->left + 0.5 * $this->width + $x * $this->cos + $y * $this->sin,
            $this->top + 0.5 * $this->height + $x * $this->sin - $y * $this->cos,
        ];
    }

    /** @return array{float, float} easting, northing of a place on the paper */
    public function ground(float $right, float $down): array
    {
        [$x, $y] = [$right - $this->left - 0.5 * $this->width, $down - $this->top - 0.5 * $this->height];

        return [
            $this->e + ($x * $this->cos + $y * $this->sin) / $this->factor, $this->n + ($x * $this->sin - $y * $this->cos) / $this->factor,
        ];
    }

    public function holds(float $right, float $down): bool
    {
        return $right >= $this->left && $right <= $this->left + $this->width && $down >= $this->top && $down <= $this->top + $this->height;
    }

    /**
     * The part of a straight line that lies in the window (Liang and Barsky 1984).
     *
     * @return ?array{float, float, float, float} from right, down, to right, down; null where it passes by
     */
    public function clipped(float $x0, float $y0, float $x1, float $y1): ?array
    {
        [$from, $to] = [0.0, 1.0];
        [$dx, $dy] = [$x1 - $x0, $y1 - $y0];
        $sides = [
            [-$dx, $x0 - $this->left], [$dx, $this->left + $this->width - $x0], [-$dy, $y0 - $this->top],
            [$dy, $this->top + $this->height - $y0],
        ];
        foreach ($sides as [$p, $q]) {
            if (0.0 === $p) {
                if ($q < 0.0) {
                    return null;
                }
                continue;
            }
            $t = $q / $p;
            [$from, $to] = $p < 0.0 ? [max($from, $t), $to] : [$from, min($to, $t)];
            if ($from > $to) {
                return null;
            }
        }

        return [$x0 + $from * $dx, $y0 + $from * $dy, $x0 + $to * $dx, $y0 + $to * $dy];
    }

    /**
     * Lines of the grid across the window, with the coordinate each stands for.
     *
     * @param float $step metres
     *
     * @return list<array{string, float, float, float, float, float}> "e" or "n", coordinate, from right, down, to right, down
     */
    public function grid(float $step): array
    {
        $corners = [];
        foreach ([[0.0, 0.0], [1.0, 0.0], [0.0, 1.0], [1.0, 1.0]] as [$u, $v]) {
            $corners[] = $this->ground($this->left + $u * $this->width, $this->top + $v * $this->height);
        }
        [$es, $ns] = [array_column($corners, 0), array_column($corners, 1)];
        $lines = [];
        foreach (['e' => $es, 'n' => $ns] as $axis => $values) {
            for ($k = (int) ceil(min($values) / $step - 1e-9), $last = (int) floor(max($values) / $step + 1e-9); $k <= $last; ++$k) {
                $at = $k * $step;
                [$a, $b] = 'e' === $axis ? [$this->paper($at, min($ns)), $this->paper($at, max($ns))]
                    : [$this->paper(min($es), $at), $this->paper(max($es), $at)];
                $part = $this->clipped($a[0], $a[1], $b[0], $b[1]);
                if (null !== $part) {
                    $lines[] = [$axis, $at, ...$part];
                }
            }
        }

        return $lines;
    }
}
