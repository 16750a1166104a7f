<?php

declare(strict_types=1);

namespace App\Export;

/** Heights along a line on a page of a report, exaggerated as stated; lines of several surfaces over one another. */
final class ReportProfile
{
    private const LEFT = 90.0;
    private const WIDTH = 440.0;
    private const HEIGHT = 110.0;
    private const FOOT = 22.0;

    /**
     * @param list<array{string, list<int>, list<list<array{float, float}>>}> $lines name, colour, pieces of station and height
     * @param \Closure(float): string                                        $asLength
     * @param \Closure(float): string                                        $asHeight
     */
    public static function draw(ReportPages $page, string $title, array $lines, \Closure $asLength, \Closure $asHeight, string $unit): void
    {
        $stations = $heights = [];
        foreach ($lines as [, , $pieces]) {
            foreach ($pieces as $piece) {
                array_push($stations, ...array_column($piece, 0));
                array_push($heights, ...array_column($piece, 1));
            }
        }
        if ([] === $stations) {
            return;
        }
        [$from, $to, $low, $high] = [min($stations), max($stations), min($heights), max($heights)];
        $sx = self::WIDTH / max(0.01, $to - $from);
        $times = max(1.0, floor(self::HEIGHT / max(0.01, $high - $low) / $sx));
        $sy = min($sx * $times, self::HEIGHT / max(0.01, $high - $low));
        $top = $page->room(self::HEIGHT + self::FOOT + 14.0) + 12.0;
        $page->pen(ReportPages::QUIET, '', 7.0);
        $page->word(self::LEFT, $top - 4.0, \sprintf('%s, heights x %s', $title, json_encode($times, \JSON_THROW_ON_ERROR)));
        $foot = $top + self::HEIGHT;
        $page->setLineStyle(['width' => 0.4, 'color' => ReportPages::GREY, 'dash' => 0]);
        $page->Line(self::LEFT, $foot, self::LEFT + self::WIDTH, $foot);
        $page->Line(self::LEFT, $top, self::LEFT, $foot);
        foreach ([[$low, $foot], [$high, $foot - ($high - $low) * $sy]] as [$h, $y]) {
            $page->word(self::LEFT - 46.0, $y + 2.0, $asHeight($h).' '.$unit);
        }
        foreach ([0.0, 0.25, 0.5, 0.75, 1.0] as $f) {
            $x = self::LEFT + $f * self::WIDTH;
            $page->Line($x, $foot, $x, $foot + 3.0);
            $page->word($x - 8.0, $foot + 11.0, $asLength($from + $f * ($to - $from)));
        }
        foreach ($lines as $k => [$name, $colour, $pieces]) {
            $page->setLineStyle(['width' => 1.0, 'color' => $colour, 'dash' => 0]);
            foreach ($pieces as $piece) {
                $points = [];
                foreach ($piece as [$station, $h]) {
                    array_push($points, self::LEFT + ($station - $from) * $sx, $foot - ($h - $low) * $sy);
                }
                $page->PolyLine($points);
            }
            $page->pen($colour, '', 7.0);
            $page->word(self::LEFT + 190.0 + 120.0 * $k, $top - 4.0, $name);
        }
        $page->setLineStyle(['width' => 0.6, 'color' => ReportPages::INK, 'dash' => 0]);
    }
}
