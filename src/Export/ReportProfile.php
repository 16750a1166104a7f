<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Shown;

/**
 * Heights along a line on a page of a report, true to a scale people use: lengths 1 : 500, heights as many times larger as fits
 * and is a round number. Lines of several surfaces over one another, points beside the line as crosses.
 */
final class ReportProfile
{
    private const LEFT = 92.0;
    private const WIDTH = 440.0;
    private const HEIGHT = 120.0;
    private const FOOT = 26.0;
    private const HEAD = 24.0;
    private const POINTS_IN_METRE = 72.0 / 0.0254;
    private const SCALES = [10, 20, 25, 50, 100, 200, 250, 500, 1000, 1250, 2000, 2500, 5000, 10000, 20000, 25000, 50000, 100000];
    private const TIMES = [50, 20, 10, 5, 2, 1];
    public const COLOURS = [[168, 96, 42], [42, 91, 215], [31, 111, 107], [125, 60, 140], [90, 90, 90], [200, 65, 43]];

    /**
     * @param list<array{string, list<list<array{float, float}>>}>             $lines  name, pieces of station and height
     * @param list<array{name: string, station: float, offset: float, h: float}> $points
     * @param float                                                            $start  added to stations where they are written
     */
    public static function draw(ReportPages $page, string $title, array $lines, Shown $as, array $points = [], float $start = 0.0): void
    {
        $stations = array_column($points, 'station');
        $heights = array_column($points, 'h');
        foreach ($lines as [, $pieces]) {
            foreach ($pieces as $piece) {
                array_push($stations, ...array_column($piece, 0));
                array_push($heights, ...array_column($piece, 1));
            }
        }
        if ([] === $stations || [] === $heights) {
            return;
        }
        [$from, $to, $low, $high] = [min($stations), max($stations), min($heights), max($heights)];
        $scale = self::scale(max($to - $from, 1e-3));
        $sx = self::POINTS_IN_METRE / $scale;
        $times = 1;
        foreach (self::TIMES as $t) {
            if (($high - $low) * $sx * $t <= self::HEIGHT) {
                $times = $t;
                break;
            }
        }
        $sy = $sx * $times;
        $tall = max(20.0, ($high - $low) * $sy);
        $top = $page->room($tall + self::FOOT + self::HEAD) + self::HEAD;
        $page->pen(ReportPages::INK, 'B', 8.0);
        $page->word(self::LEFT, $top - 14.0, $title);
        $page->pen(ReportPages::QUIET, '', 7.0);
        $heights = json_encode(round($scale / $times, 1), \JSON_THROW_ON_ERROR);
        $page->word(self::LEFT, $top - 5.0, \sprintf('lengths 1 : %d, heights 1 : %s', $scale, $heights));
        $foot = $top + $tall;
        $x = static fn (float $s): float => self::LEFT + ($s - $from) * $sx;
        $page->ink(ReportPages::GREY, 0.4);
        $page->path([self::LEFT, $foot, $x($to), $foot]);
        $page->path([self::LEFT, $top, self::LEFT, $foot]);
        foreach ([$low, $high] as $h) {
            $page->word(self::LEFT - 50.0, $foot - ($h - $low) * $sy + 2.0, $as->height($h).' '.$as->length);
        }
        foreach ([0.0, 0.25, 0.5, 0.75, 1.0] as $f) {
            $s = $from + $f * ($to - $from);
            $page->path([$x($s), $foot, $x($s), $foot + 3.0]);
            $page->word($x($s) - 8.0, $foot + 12.0, $as->length($start + $s));
        }
        foreach ($lines as $k => [$name, $pieces]) {
            $colour = self::COLOURS[$k % \count(self::COLOURS)];
            $page->ink($colour, 1.0);
            foreach ($pieces as $piece) {
                $path = [];
                foreach ($piece as [$station, $h]) {
                    array_push($path, $x($station), $foot - ($h - $low) * $sy);
                }
                if (\count($path) >= 4) {
                    $page->path($path);
                }
            }
            $page->pen($colour, '', 7.0);
            $page->word(self::LEFT + 200.0 + 80.0 * $k, $top - 5.0, $name);
        }
        $page->ink(ReportPages::INK, 0.5);
        foreach ($points as $p) {
            [$px, $py] = [$x($p['station']), $foot - ($p['h'] - $low) * $sy];
            $page->path([$px - 1.6, $py - 1.6, $px + 1.6, $py + 1.6]);
            $page->path([$px - 1.6, $py + 1.6, $px + 1.6, $py - 1.6]);
        }
    }

    /** The largest scale of those in use at which a length fits the page. */
    private static function scale(float $length): int
    {
        foreach (self::SCALES as $scale) {
            if ($length * self::POINTS_IN_METRE / $scale <= self::WIDTH) {
                return $scale;
            }
        }

        return (int) ceil($length * self::POINTS_IN_METRE / self::WIDTH);
    }
}
