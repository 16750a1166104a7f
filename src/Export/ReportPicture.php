<?php

declare(strict_types=1);

namespace App\Export;

use Mensura\Surface\Tin;

/**
 * A map on a page of a report, true to one scale in both directions: filled triangles and squares as one picture, lines and
 * words over it, a key of colours, a scale bar and north. World in metres.
 */
final class ReportPicture
{
    private const LEFT = 60.0;
    private const WIDTH = 475.0;
    private const KEY = 30.0;
    /** Dots of the picture on one point of the page. */
    private const FINE = 3.0;

    private readonly float $top;
    private readonly float $scale;
    private readonly float $height;

    /** @param array{float, float, float, float} $extent west, south, east, north */
    public function __construct(private readonly ReportPages $page, private readonly array $extent, float $most)
    {
        [$w, $s, $e, $n] = $extent;
        $this->scale = min(self::WIDTH / max(0.01, $e - $w), $most / max(0.01, $n - $s));
        $this->height = max(40.0, ($n - $s) * $this->scale);
        $this->top = $page->room($this->height + self::KEY);
    }

    /**
     * A surface filled by what lies between limits of its heights, cut exactly there.
     *
     * @param list<float>  $limits  growing
     * @param list<string> $colours as "#rrggbb", one more than limits
     */
    public function surface(Tin $tin, array $limits, array $colours): void
    {
        $this->paint(function (\GdImage $image, array $ink) use ($tin, $limits): void {
            $edges = [-\INF, ...$limits, \INF];
            for ($h = 0, $end = \count($tin->triangles); $h < $end; $h += 3) {
                $corners = [];
                for ($k = $h; $k < $h + 3; ++$k) {
                    $v = $tin->triangles[$k];
                    $corners[] = [$tin->x[$v], $tin->y[$v], $tin->z[$v]];
                }
                $z = array_column($corners, 2);
                foreach ($ink as $band => $colour) {
                    if (max($z) < $edges[$band] || min($z) > $edges[$band + 1]) {
                        continue;
                    }
                    $dots = [];
                    foreach (self::above(self::above($corners, $edges[$band], 1.0), $edges[$band + 1], -1.0) as [$x, $y]) {
                        array_push($dots, ...$this->dot($x, $y));
                    }
                    if (\count($dots) >= 6) {
                        imagefilledpolygon($image, $dots, $colour);
                    }
                }
            }
        }, $colours);
    }

    /**
     * The part of a convex piece above a level, or below it where the sign is negative.
     *
     * @param list<array{float, float, float}> $corners
     *
     * @return list<array{float, float, float}>
     */
    private static function above(array $corners, float $level, float $sign): array
    {
        if (is_infinite($level)) {
            return $corners;
        }
        $kept = [];
        foreach ($corners as $k => $a) {
            $b = $corners[($k + 1) % \count($corners)];
            [$da, $db] = [$sign * ($a[2] - $level), $sign * ($b[2] - $level)];
            if ($da >= 0.0) {
                $kept[] = $a;
            }
            if ($da > 0.0 && $db < 0.0 || $da < 0.0 && $db > 0.0) {
                $f = $da / ($da - $db);
                $kept[] = [$a[0] + $f * ($b[0] - $a[0]), $a[1] + $f * ($b[1] - $a[1]), $level];
            }
        }

        return $kept;
    }

    /**
     * Squares about places, filled by band; a band of -1 is drawn hollow.
     *
     * @param list<float>  $x
     * @param list<float>  $y
     * @param list<int>    $band
     * @param float        $size metres
     * @param list<string> $colours
     */
    public function squares(array $x, array $y, array $band, float $size, array $colours): void
    {
        $half = 0.5 * $size;
        $this->paint(function (\GdImage $image, array $ink) use ($x, $y, $band, $half): void {
            foreach ($x as $i => $e) {
                [$left, $top] = $this->dot($e - $half, $y[$i] + $half);
                [$right, $foot] = $this->dot($e + $half, $y[$i] - $half);
                if ($band[$i] < 0) {
                    imagerectangle($image, $left, $top, $right, $foot, (int) imagecolorallocate($image, 178, 125, 30));
                } else {
                    imagefilledrectangle($image, $left, $top, $right, $foot, $ink[$band[$i]]);
                }
            }
        }, $colours);
    }

    /**
     * @param list<float> $path x, y, x, y, ...
     * @param list<int>   $colour
     */
    public function line(array $path, array $colour = ReportPages::INK, float $width = 0.6, string $dash = ''): void
    {
        $this->page->ink($colour, $width, $dash);
        $points = [];
        for ($i = 0, $n = \count($path); $i < $n; $i += 2) {
            array_push($points, ...$this->at($path[$i], $path[$i + 1]));
        }
        if (\count($points) >= 4) {
            $this->page->path($points);
        }
        $this->page->ink(ReportPages::INK, 0.6);
    }

    /** @param list<int> $colour */
    public function word(float $x, float $y, string $text, array $colour = ReportPages::INK): void
    {
        [$px, $py] = $this->at($x, $y);
        $this->page->pen($colour, '', 6.5);
        $this->page->word($px + 2.0, $py - 1.0, $text);
    }

    /**
     * Key of the colours, scale bar, north.
     *
     * @param list<string> $colours
     * @param list<string> $labels  where one colour meets the next
     */
    public function legend(array $colours, array $labels, string $caption): void
    {
        $y = $this->top + $this->height + 6.0;
        $x = self::LEFT;
        $this->page->pen(ReportPages::INK, '', 6.5);
        foreach ($colours as $i => $colour) {
            $this->page->ink(ReportPages::GREY, 0.3);
            $this->page->box($x, $y, 34.0, 7.0, self::rgb($colour));
            if ($i > 0) {
                $this->page->word($x - 7.0, $y + 15.0, $labels[$i - 1] ?? '');
            }
            $x += 34.0;
        }
        $this->page->pen(ReportPages::QUIET, '', 6.5);
        $this->page->word($x + 10.0, $y + 6.5, $caption);
        $bar = RoundNumber::atMost(90.0 / $this->scale);
        $right = self::LEFT + self::WIDTH - 24.0;
        $this->page->ink(ReportPages::INK, 1.0);
        $this->page->path([$right - $bar * $this->scale, $y + 16.0, $right, $y + 16.0]);
        $this->page->pen(ReportPages::INK, '', 6.5);
        $this->page->word($right - $bar * $this->scale, $y + 13.0, json_encode($bar, \JSON_THROW_ON_ERROR).' m');
        $this->page->word($right + 10.0, $y + 8.0, 'N');
        $this->page->path([$right + 13.0, $y + 10.0, $right + 13.0, $y + 20.0]);
    }

    /**
     * @param \Closure(\GdImage, list<int>): void $draw
     * @param list<string>                        $colours
     */
    private function paint(\Closure $draw, array $colours): void
    {
        $image = imagecreatetruecolor(max(1, (int) ceil($this->width() * self::FINE)), max(1, (int) ceil($this->height * self::FINE)));
        if (false === $image) {
            throw new \RuntimeException('No picture can be made.');
        }
        imagefill($image, 0, 0, (int) imagecolorallocate($image, 255, 255, 255));
        $draw($image, array_map(static fn (string $c): int => (int) imagecolorallocate($image, ...self::rgb($c)), $colours));
        ob_start();
        imagepng($image, null, 6);
        $png = (string) ob_get_clean();
        $this->page->picture($png, self::LEFT, $this->top, $this->width(), $this->height);
    }

    private function width(): float
    {
        return ($this->extent[2] - $this->extent[0]) * $this->scale;
    }

    /** @return array{int, int} */
    private function dot(float $x, float $y): array
    {
        return [
            (int) round(($x - $this->extent[0]) * $this->scale * self::FINE),
            (int) round(($this->extent[3] - $y) * $this->scale * self::FINE),
        ];
    }

    /** @return array{float, float} */
    private function at(float $x, float $y): array
    {
        return [self::LEFT + ($x - $this->extent[0]) * $this->scale, $this->top + ($this->extent[3] - $y) * $this->scale];
    }

    /** @return array{int<0, 255>, int<0, 255>, int<0, 255>} */
    private static function rgb(string $colour): array
    {
        $part = static fn (int $from): int => max(0, min(255, (int) hexdec(substr($colour, $from, 2))));

        return [$part(1), $part(3), $part(5)];
    }
}
