<?php

declare(strict_types=1);

namespace Mensura\Cloud;

/**
 * Which points of a cloud are ground. The lowest points of cells are opened by ever larger squares, and what falls by more than
 * a slope allows stands on the ground (Pingel, Clarke, McBride 2013, ISPRS Journal 77, "An improved simple morphological
 * filter"), here on what is left of the heights when the lie of the land is taken off, so that steep ground is as good as flat.
 * Then planes through what was found so far say again what is near enough.
 */
final class Ground
{
    /** Metres: the widest building that is taken off. */
    private const WIDEST = 40.0;
    /** Slope of the ground beyond the lie of the land. */
    private const SLOPE = 0.15;
    /** Metres: cells. */
    private const FINEST = 0.5;
    private const COARSEST = 3.0;
    /** Metres about the first surface, and what the slope of the ground adds within a cell. */
    private const NEAR = 0.45;
    private const OF_SLOPE = 1.25;
    /** Metres: the least and the greatest a point of the ground may lie off the planes. */
    private const LEAST = 0.10;
    private const GREATEST = 0.30;
    private const TIMES = 3.0;
    /** Points of a cell that a plane is laid through. */
    private const MOST_OF_CELL = 4;
    /** Of the slope of the land that what lies on it may have more. */
    private const STEEPER = 0.4;

    /**
     * @param list<float>      $x
     * @param list<float>      $y
     * @param list<float>      $z
     * @param array<int, true> $noise points that are passed over
     *
     * @return array<int, true> those that are ground
     */
    public static function of(array $x, array $y, array $z, array $noise = []): array
    {
        if (\count($x) <= \count($noise)) {
            return [];
        }
        $low = self::lowest($x, $y, $z, $noise);
        $surface = self::surface($low);
        $ground = self::near($surface, $x, $y, $z, $noise);
        for ($k = 0; $k < 2; ++$k) {
            $ground = self::refined($surface, $x, $y, $z, $noise, $ground);
        }

        return $ground;
    }

    /**
     * @param list<float>      $x
     * @param list<float>      $y
     * @param list<float>      $z
     * @param array<int, true> $noise
     */
    private static function lowest(array $x, array $y, array $z, array $noise): HeightGrid
    {
        [$west, $south] = [min($x), min($y)];
        [$wide, $high] = [max($x) - $west, max($y) - $south];
        $cells = [];
        foreach ($x as $i => $e) {
            $cells[CloudFigures::cell($e, $y[$i])] = true;
        }
        $density = \count($x) / \count($cells);
        $cell = max(self::FINEST, min(self::COARSEST, 1.6 / sqrt($density)));
        // A cloud that is nearly all gaps is not worth more cells than points.
        $cell = max($cell, sqrt($wide * $high / (4.0 * \count($x) + 100.0)));
        [$w, $n] = [(int) ($wide / $cell) + 1, (int) ($high / $cell) + 1];
        // Infinite, not NAN: the compiler of PHP 8.2 takes "not less or equal" for "greater", which of NAN it is not.
        $h = array_fill(0, $w * $n, \INF);
        foreach ($x as $i => $e) {
            if (isset($noise[$i])) {
                continue;
            }
            $k = (int) (($y[$i] - $south) / $cell) * $w + (int) (($e - $west) / $cell);
            if ($z[$i] < $h[$k]) {
                $h[$k] = $z[$i];
            }
        }

        $h = array_map(static fn (float $v): float => is_infinite($v) ? \NAN : $v, $h);

        return new HeightGrid($west, $south, $cell, $w, $n, $h);
    }

    private static function surface(HeightGrid $low): HeightGrid
    {
        $full = $low->filled();
        // Single cells far below their neighbours are echoes that went astray.
        $under = $full->with(array_map(static fn (float $v): float => -$v, $full->h));
        $open = $under->opened(1);
        $h = $low->h;
        foreach ($under->h as $k => $v) {
            if ($v - $open->h[$k] > 5.0 * $low->cell) {
                $h[$k] = \NAN;
            }
        }
        $low = $low->with($h);
        $full = $low->filled();
        $widest = max(1, (int) round(0.5 * self::WIDEST / $low->cell));
        $land = $full->opened($widest)->smoothed($widest);
        $bare = $full->with(array_map(static fn (float $v, float $l): float => $v - $l, $full->h, $land->h));
        $slopes = array_map(static fn (float $s): float => self::SLOPE + self::STEEPER * $s, $land->slopes());
        $last = $bare;
        for ($r = 1; $r <= $widest; $r += max(1, intdiv($r, 4))) {
            $open = $last->opened($r);
            $most = $r * $low->cell;
            foreach ($open->h as $k => $v) {
                if ($last->h[$k] - $v > $most * $slopes[$k]) {
                    $h[$k] = \NAN;
                }
            }
            $last = $open;
        }

        return $low->with($h)->filled();
    }

    /**
     * @param list<float>      $x
     * @param list<float>      $y
     * @param list<float>      $z
     * @param array<int, true> $noise
     *
     * @return array<int, true>
     */
    private static function near(HeightGrid $surface, array $x, array $y, array $z, array $noise): array
    {
        $smooth = $surface->smoothed(1);
        $ground = [];
        $c = $surface->cell;
        foreach ($x as $i => $e) {
            if (isset($noise[$i])) {
                continue;
            }
            $n = $y[$i];
            $east = $smooth->at($e + $c, $n) - $smooth->at($e - $c, $n);
            $slope = hypot($east, $smooth->at($e, $n + $c) - $smooth->at($e, $n - $c)) / (2.0 * $c);
            if (abs($z[$i] - $surface->at($e, $n)) <= self::NEAR + self::OF_SLOPE * $slope * 0.5 * $c) {
                $ground[$i] = true;
            }
        }

        return $ground;
    }

    /**
     * A plane through the ground of every cell and those about it, weighted down where points lie above it; near enough is
     * what their scatter says.
     *
     * @param list<float>      $x
     * @param list<float>      $y
     * @param list<float>      $z
     * @param array<int, true> $noise
     * @param array<int, true> $ground
     *
     * @return array<int, true>
     */
    private static function refined(HeightGrid $surface, array $x, array $y, array $z, array $noise, array $ground): array
    {
        [$w, $n, $c] = [$surface->width, $surface->height, $surface->cell];
        $of = [];
        foreach ($ground as $i => $_) {
            $k = (int) (($y[$i] - $surface->south) / $c) * $w + (int) (($x[$i] - $surface->west) / $c);
            if (!isset($of[$k][self::MOST_OF_CELL - 1])) {
                $of[$k][] = $i;
            }
        }
        $planes = self::planes($surface, $x, $y, $z, $of);
        $off = [];
        foreach ($ground as $i => $_) {
            $off[] = abs($z[$i] - self::height($planes, $surface, $x[$i], $y[$i]));
        }
        sort($off);
        $spread = [] === $off ? 0.0 : 1.4826 * $off[intdiv(\count($off), 2)];
        $near = max(self::LEAST, min(self::GREATEST, self::TIMES * $spread));
        $found = [];
        foreach ($x as $i => $e) {
            if (!isset($noise[$i]) && abs($z[$i] - self::height($planes, $surface, $e, $y[$i])) <= $near) {
                $found[$i] = true;
            }
        }

        return $found;
    }

    /**
     * @param list<float>           $x
     * @param list<float>           $y
     * @param list<float>           $z
     * @param array<int, list<int>> $of ground by cell
     *
     * @return list<float> height in the middle, slopes to the east and the north, cell by cell
     */
    private static function planes(HeightGrid $surface, array $x, array $y, array $z, array $of): array
    {
        [$w, $n, $c] = [$surface->width, $surface->height, $surface->cell];
        $planes = [];
        for ($j = 0, $k = 0; $j < $n; ++$j) {
            for ($i = 0; $i < $w; ++$i, ++$k) {
                $e0 = $surface->west + ($i + 0.5) * $c;
                $n0 = $surface->south + ($j + 0.5) * $c;
                $plane = null;
                for ($reach = 1; null === $plane && $reach <= 3; ++$reach) {
                    $points = [];
                    for ($b = max(0, $j - $reach); $b <= min($n - 1, $j + $reach); ++$b) {
                        for ($a = max(0, $i - $reach); $a <= min($w - 1, $i + $reach); ++$a) {
                            foreach ($of[$b * $w + $a] ?? [] as $p) {
                                $points[] = $p;
                            }
                        }
                    }
                    $plane = self::plane($points, $x, $y, $z, $e0, $n0);
                }
                [$h, $s, $t] = $plane ?? [$surface->h[$k], \NAN, \NAN];
                $planes[] = $h;
                $planes[] = $s;
                $planes[] = $t;
            }
        }

        return $planes;
    }

    /**
     * Least squares, three times, with less and less weight for what lies above.
     *
     * @param list<int>   $points
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return ?array{float, float, float}
     */
    private static function plane(array $points, array $x, array $y, array $z, float $e0, float $n0): ?array
    {
        if (\count($points) < 6) {
            return null;
        }
        [$h, $s, $t] = [0.0, 0.0, 0.0];
        $z0 = $z[$points[0]];
        for ($k = 0; $k < 3; ++$k) {
            $w0 = $we = $wn = $wee = $wen = $wnn = $wh = $weh = $wnh = 0.0;
            foreach ($points as $p) {
                $e = $x[$p] - $e0;
                $n = $y[$p] - $n0;
                $v = $z[$p] - $z0;
                $r = 0 === $k ? 0.0 : $v - $h - $s * $e - $t * $n;
                $q = $r > 0.0 ? $r / 0.05 : -$r / 0.15;
                $g = 1.0 / (1.0 + $q * $q);
                $w0 += $g;
                $we += $g * $e;
                $wn += $g * $n;
                $wee += $g * $e * $e;
                $wen += $g * $e * $n;
                $wnn += $g * $n * $n;
                $wh += $g * $v;
                $weh += $g * $e * $v;
                $wnh += $g * $n * $v;
            }
            [$me, $mn, $mh] = [$we / $w0, $wn / $w0, $wh / $w0];
            [$a, $b, $d] = [$wee / $w0 - $me * $me, $wen / $w0 - $me * $mn, $wnn / $w0 - $mn * $mn];
            $det = $a * $d - $b * $b;
            if ($det <= 1e-3 * $a * $d || $a <= 0.0 || $d <= 0.0) {
                return null;
            }
            [$p, $q] = [$weh / $w0 - $me * $mh, $wnh / $w0 - $mn * $mh];
            $s = ($d * $p - $b * $q) / $det;
            $t = ($a * $q - $b * $p) / $det;
            $h = $mh - $s * $me - $t * $mn;
        }

        return [$h + $z0, $s, $t];
    }

    /**
     * The planes of the four middles about a place, weighted as bilinear interpolation does.
     *
     * @param list<float> $planes
     */
    private static function height(array $planes, HeightGrid $g, float $x, float $y): float
    {
        $u = max(0.0, min($g->width - 1.0, ($x - $g->west) / $g->cell - 0.5));
        $v = max(0.0, min($g->height - 1.0, ($y - $g->south) / $g->cell - 0.5));
        [$i, $j] = [(int) $u, (int) $v];
        [$s, $t] = [$u - $i, $v - $j];
        $sum = 0.0;
        foreach ([[0, 0], [1, 0], [0, 1], [1, 1]] as [$right, $up]) {
            [$a, $b] = [$i + $right, $j + $up];
            $weight = (1 === $right ? $s : 1.0 - $s) * (1 === $up ? $t : 1.0 - $t);
            if ($weight > 0.0) {
                $k = 3 * (min($b, $g->height - 1) * $g->width + min($a, $g->width - 1));
                $e = $planes[$k + 1];
                $rise = is_nan($e) ? 0.0
                    : $e * ($x - $g->west - ($a + 0.5) * $g->cell) + $planes[$k + 2] * ($y - $g->south - ($b + 0.5) * $g->cell);
                $sum += $weight * ($planes[$k] + $rise);
            }
        }

        return $sum;
    }
}
