<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;

/**
 * Cut and fill by layers, exact on plane pieces: the volume of a prism above a level is that above its foot less that above
 * its head. The slices add up to the whole. Cubic metres.
 */
final class VolumeSlices
{
    private const MOST = 500;

    /**
     * By thickness: how much lies within the first metre off the reference, within the second, and so on.
     *
     * @param float $step metres
     *
     * @return list<array{from: float, to: float, cut: float, fill: float}> from the reference outwards, none left out between
     *
     * @throws UnusableInput more slices than anyone reads
     */
    public static function byDepth(Overlay $overlay, float $step): array
    {
        return self::slices($overlay, $step, true);
    }

    /**
     * By elevation: how much is taken away or put in between two levels.
     *
     * @param float $step metres; the levels are its multiples
     *
     * @return list<array{from: float, to: float, cut: float, fill: float}> upwards
     *
     * @throws UnusableInput more slices than anyone reads
     */
    public static function byElevation(Overlay $overlay, float $step): array
    {
        return self::slices($overlay, $step, false);
    }

    /** @return list<array{from: float, to: float, cut: float, fill: float}> */
    private static function slices(Overlay $overlay, float $step, bool $byDepth): array
    {
        if (!($step > 0.0) || !is_finite($step)) {
            throw new UnusableInput('', 'a slice must be thicker than 0');
        }
        [$low, $high] = self::range($overlay, $byDepth);
        $first = (int) floor($low / $step);
        $count = max(1, (int) ceil($high / $step - 1e-9) - $first);
        if ($count > self::MOST) {
            throw new UnusableInput('', \sprintf(
                'slices of %s m from %.2f to %.2f m are %d; choose thicker ones, %d at most are listed', json_encode($step), $low, $high,
                $count, self::MOST,
            ));
        }
        $cut = $fill = array_fill(0, $count, 0.0);
        $t = $overlay->triangles;
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            $x = $y = $u = $l = [];
            for ($k = $h; $k < $h + 3; ++$k) {
                $v = $t[$k];
                $x[] = $overlay->x[$v];
                $y[] = $overlay->y[$v];
                $u[] = $overlay->upper[$v];
                $l[] = $overlay->lower[$v];
            }
            self::part($cut, $x, $y, $u, $l, $first, $step, $byDepth);
            self::part($fill, $x, $y, $l, $u, $first, $step, $byDepth);
        }
        $slices = [];
        for ($k = 0; $k < $count; ++$k) {
            $slices[] = ['from' => ($first + $k) * $step, 'to' => ($first + $k + 1) * $step, 'cut' => $cut[$k], 'fill' => $fill[$k]];
        }

        return $slices;
    }

    /** @return array{float, float} */
    private static function range(Overlay $overlay, bool $byDepth): array
    {
        $low = \INF;
        $high = -\INF;
        foreach ($overlay->triangles as $v) {
            $upper = $overlay->upper[$v];
            $lower = $overlay->lower[$v];
            $low = min($low, $upper, $lower);
            $high = max($high, $byDepth ? abs($upper - $lower) : max($upper, $lower));
        }

        return [$byDepth ? 0.0 : $low, $high];
    }

    /**
     * Adds what lies between head and foot where the head is the higher, slice by slice.
     *
     * @param list<float> $slices
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $head
     * @param list<float> $foot
     */
    private static function part(array &$slices, array $x, array $y, array $head, array $foot, int $first, float $step, bool $byDepth): void
    {
        [$px, $py, $ph, $pf] = [[], [], [], []];
        for ($k = 0; $k < 3; ++$k) {
            $m = ($k + 1) % 3;
            $d = $head[$k] - $foot[$k];
            $e = $head[$m] - $foot[$m];
            if ($d >= 0.0) {
                [$px[], $py[], $ph[], $pf[]] = [$x[$k], $y[$k], $byDepth ? $d : $head[$k], $byDepth ? 0.0 : $foot[$k]];
            }
            if ($d > 0.0 && $e < 0.0 || $d < 0.0 && $e > 0.0) {
                $f = $d / ($d - $e);
                $px[] = $x[$k] + $f * ($x[$m] - $x[$k]);
                $py[] = $y[$k] + $f * ($y[$m] - $y[$k]);
                $at = $foot[$k] + $f * ($foot[$m] - $foot[$k]);
                [$ph[], $pf[]] = $byDepth ? [0.0, 0.0] : [$at, $at];
            }
        }
        for ($k = 1, $n = \count($px) - 1; $k < $n; ++$k) {
            $area = 0.5 * (($px[$k] - $px[0]) * ($py[$k + 1] - $py[0]) - ($px[$k + 1] - $px[0]) * ($py[$k] - $py[0]));
            $a = self::sorted($ph[0], $ph[$k], $ph[$k + 1]);
            $b = self::sorted($pf[0], $pf[$k], $pf[$k + 1]);
            $from = max(0, (int) floor($b[0] / $step) - $first);
            $to = min(\count($slices) - 1, (int) floor($a[2] / $step) - $first);
            $below = self::above($a, $area, ($first + $from) * $step) - self::above($b, $area, ($first + $from) * $step);
            for ($s = $from; $s <= $to; ++$s) {
                $level = ($first + $s + 1) * $step;
                $next = $s === $to ? 0.0 : self::above($a, $area, $level) - self::above($b, $area, $level);
                $slices[$s] += $below - $next;
                $below = $next;
            }
        }
    }

    /** @return array{float, float, float} ascending */
    private static function sorted(float $a, float $b, float $c): array
    {
        if ($a > $b) {
            [$a, $b] = [$b, $a];
        }

        return $c < $a ? [$c, $a, $b] : ($c < $b ? [$a, $c, $b] : [$a, $b, $c]);
    }

    /**
     * Volume under a plane triangle and above a level: the pyramid of the corner that stands out, or the prism less that of
     * the corner that does not.
     *
     * @param array{float, float, float} $z ascending
     */
    private static function above(array $z, float $area, float $level): float
    {
        [$low, $middle, $high] = [$z[0] - $level, $z[1] - $level, $z[2] - $level];
        if ($low >= 0.0) {
            return $area * ($low + $middle + $high) / 3.0;
        }
        if ($high <= 0.0) {
            return 0.0;
        }
        if ($middle >= 0.0) {
            return $area * (($low + $middle + $high) / 3.0 - $low * ($low / ($low - $middle)) * ($low / ($low - $high)) / 3.0);
        }

        return $area * $high * ($high / ($high - $middle)) * ($high / ($high - $low)) / 3.0;
    }
}
