<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use Mensura\Plot\PaperSize;
use Mensura\Plot\Placement;
use Mensura\Plot\ScaleChoice;

/**
 * Sheets of a drawing as pages of a PDF, millimetres, true to scale. What does not print is a layer of the file that shows on the
 * screen only (ISO 32000-1, 8.11, optional content).
 */
final class SheetPages extends \TCPDF
{
    private const TYPEFACE = 'dejavusanscondensed';
    private const POINT = 72.0 / 25.4;
    private const INK = [31, 39, 51];
    private const QUIET = [108, 106, 94];
    private const GRID = [190, 184, 168];
    private const MARGIN = 8.0;
    private const TITLE = [120.0, 46.0];
    private const ROW = 4.6;

    public function __construct()
    {
        parent::__construct('P', 'mm', 'A4');
        $this->setPrintHeader(false);
        $this->setPrintFooter(false);
        $this->tcpdflink = false;
        $this->setMargins(0.0, 0.0, 0.0);
        $this->setCellPaddings(0.0, 0.0, 0.0, 0.0);
        $this->setAutoPageBreak(false);
        $this->setFont(self::TYPEFACE);
    }

    public function sheet(PaperSize $paper): void
    {
        $this->AddPage($paper->width > $paper->height ? 'L' : 'P', [$paper->width, $paper->height]);
    }

    /**
     * A window with what a view shows in it.
     *
     * @param array{frame: string, grid: bool, coordinates: bool, north: bool, bar: bool, legend: bool, ...} $with
     */
    public function window(Placement $p, DrawnView $view, array $with, string $number): void
    {
        if ($with['grid']) {
            $this->apart("grid $number", true, function () use ($p): void {
                $this->stroke(self::GRID, 0.1);
                foreach ($p->grid(ScaleChoice::grid($p->denominator)) as [, , $x0, $y0, $x1, $y1]) {
                    $this->Line($x0, $y0, $x1, $y1);
                }
            });
        }
        foreach ($view->layers as $layer) {
            $this->apart($layer['name'], $layer['prints'], function () use ($p, $layer): void {
                $this->stroke(self::rgb($layer['colour']), $layer['width']);
                foreach ($layer['lines'] as $line) {
                    $this->path($p, $line);
                }
            });
        }
        $this->points($p, $view);
        if ($with['coordinates']) {
            $this->apart("coordinates $number", true, fn () => $this->border($p));
        }
        if ('none' !== $with['frame']) {
            $this->apart("frame $number", 'print' === $with['frame'], function () use ($p): void {
                $this->stroke(self::INK, 0.35);
                $this->Rect($p->left, $p->top, $p->width, $p->height);
            });
        }
        if ($with['north']) {
            $this->north($p);
        }
        if ($with['bar']) {
            $this->bar($p);
        }
        if ($with['legend']) {
            $this->legend($p, $view);
        }
    }

    /**
     * A table; what does not fit the sheet is counted.
     *
     * @param list<array{string, float, string}> $columns heading, part of the width, "L" or "R"
     * @param list<list<string>>                 $rows
     *
     * @return int rows that are left out
     */
    public function table(float $x, float $y, float $width, string $title, array $columns, array $rows): int
    {
        $parts = array_sum(array_column($columns, 1));
        $room = (int) floor(($this->getPageHeight() - self::MARGIN - $y) / self::ROW) - 3;
        $this->words($x, $y, $title, 2.4, self::INK, 'B');
        $y += self::ROW;
        /** @param list<int> $colour */
        $line = function (array $cells, array $colour) use (&$y, $x, $width, $columns, $parts): void {
            $at = $x;
            foreach ($columns as $i => [, $part, $align]) {
                $wide = $width * $part / $parts;
                $this->pen(1.9, array_values($colour), '');
                $this->setXY($at, $y);
                $this->Cell($wide - 1.0, self::ROW, $this->cut($cells[$i], $wide - 1.0), 0, 0, $align, false, '', 0, false, 'T', 'M');
                $at += $wide;
            }
            $y += self::ROW;
            $this->stroke(self::GRID, 0.1);
            $this->Line($x, $y, $x + $width, $y);
        };
        $line(array_column($columns, 0), self::QUIET);
        foreach (\array_slice($rows, 0, max(0, $room)) as $cells) {
            $line($cells, self::INK);
        }
        $more = \count($rows) - max(0, $room);
        if ($more > 0) {
            $this->words($x, $y + 0.5, "and $more more", 1.9, self::QUIET);
        }

        return max(0, $more);
    }

    /**
     * The block of the lower right corner, and revisions above it.
     *
     * @param array{title: string, number: string, drawn: string, checked: string, date: string, company: string} $fields
     * @param list<array{mark: string, date: string, text: string}>                                               $revisions
     */
    public function titleBlock(array $fields, array $revisions, string $project, string $system, string $scales, string $page): void
    {
        [$width, $height] = self::TITLE;
        $width = min($width, $this->getPageWidth() - 2.0 * self::MARGIN);
        $x = $this->getPageWidth() - self::MARGIN - $width;
        $y = $this->getPageHeight() - self::MARGIN - $height;
        $this->setFillColor(255, 255, 255);
        $this->stroke(self::INK, 0.35);
        $this->Rect($x, $y, $width, $height, 'DF');
        $this->pen(2.1, self::INK, '');
        $this->setXY($x + 2.0, $y + 1.5);
        $this->MultiCell($width - 4.0, 3.4, $fields['company'], 0, 'L', false, 1, null, null, true, 0, false, true, 10.5, 'T', true);
        $this->Line($x, $y + 13.0, $x + $width, $y + 13.0);
        $this->words($x + 2.0, $y + 14.5, $project, 2.1, self::QUIET);
        $this->words($x + 2.0, $y + 18.5, $this->fit($fields['title'], $width - 4.0, 4.0), 4.0, self::INK, 'B');
        $this->words($x + 2.0, $y + 25.0, $this->fit($system, $width - 4.0, 1.9), 1.9, self::QUIET);
        $this->stroke(self::INK, 0.15);
        $this->Line($x, $y + 29.0, $x + $width, $y + 29.0);
        $cells = [
            ['drawn', $fields['drawn']], ['checked', $fields['checked']], ['date', $fields['date']], ['scale', $scales], ['sheet', $page],
            ['number', $fields['number']],
        ];
        foreach ($cells as $i => [$label, $text]) {
            [$cx, $cy] = [$x + ($i % 3) * $width / 3.0, $y + 29.0 + intdiv($i, 3) * 8.5];
            $this->words($cx + 2.0, $cy + 0.8, $label, 1.6, self::QUIET);
            $this->words($cx + 2.0, $cy + 3.4, $this->fit($text, $width / 3.0 - 3.0, 2.5), 2.5, self::INK);
        }
        $this->Line($x, $y + 37.5, $x + $width, $y + 37.5);
        foreach ([1, 2] as $i) {
            $this->Line($x + $i * $width / 3.0, $y + 29.0, $x + $i * $width / 3.0, $y + $height);
        }
        foreach ($revisions as $i => $r) {
            $ry = $y - self::ROW * ($i + 1);
            $this->Rect($x, $ry, $width, self::ROW, 'DF');
            $this->words($x + 2.0, $ry + 1.2, $r['mark'], 1.9, self::INK, 'B');
            $this->words($x + 12.0, $ry + 1.2, $r['date'], 1.9, self::INK);
            $this->words($x + 34.0, $ry + 1.2, $this->fit($r['text'], $width - 36.0, 1.9), 1.9, self::INK);
        }
    }

    public function outerFrame(): void
    {
        $this->stroke(self::INK, 0.5);
        $this->Rect(self::MARGIN, self::MARGIN, $this->getPageWidth() - 2.0 * self::MARGIN, $this->getPageHeight() - 2.0 * self::MARGIN);
    }

    private function points(Placement $p, DrawnView $view): void
    {
        $shown = [];
        foreach ($view->points as $point) {
            [$x, $y] = $p->paper($point['e'], $point['n']);
            if ($p->holds($x, $y)) {
                $shown[] = [$x, $y, $point];
            }
        }
        if ([] === $shown) {
            return;
        }
        $size = 0.5 * $view->text;
        $this->apart('points', $view->prints('points'), function () use ($shown, $size): void {
            $this->stroke(self::INK, 0.2);
            $this->setFillColor(255, 255, 255);
            foreach ($shown as [$x, $y, $point]) {
                if ('control' === $point['role']) {
                    $this->Polygon([$x - $size, $y + 0.7 * $size, $x + $size, $y + 0.7 * $size, $x, $y - $size], 'DF');
                } elseif ('surveyed' === $point['role']) {
                    $this->Line($x - 0.4 * $size, $y, $x + 0.4 * $size, $y);
                    $this->Line($x, $y - 0.4 * $size, $x, $y + 0.4 * $size);
                } else {
                    $this->Circle($x, $y, 0.7 * $size, 0, 360, 'DF');
                }
            }
        });
        $label = function (string $layer, float $down, \Closure $text) use ($shown, $view): void {
            $this->apart($layer, $view->prints($layer), function () use ($shown, $view, $down, $text): void {
                foreach ($shown as [$x, $y, $point]) {
                    $this->words($x + 0.7 * $view->text, $y + $down, $text($point), $view->text, self::INK);
                }
            });
        };
        if ($view->names) {
            $label('names', -1.2 * $view->text, static fn (array $q): string => $q['name']);
        }
        if ($view->heights) {
            $label('heights', 0.1 * $view->text, static fn (array $q): string => null === $q['h'] ? '' : \sprintf('%.2f', $q['h']));
        }
    }

    /** @param list<float> $line e, n, e, n ... */
    private function path(Placement $p, array $line): void
    {
        $open = [];
        $flush = function () use (&$open): void {
            if (\count($open) >= 4) {
                $this->PolyLine($open);
            }
            $open = [];
        };
        for ($i = 2, $n = \count($line); $i + 1 < $n; $i += 2) {
            $part = $p->clipped(...[...$p->paper($line[$i - 2], $line[$i - 1]), ...$p->paper($line[$i], $line[$i + 1])]);
            if (null === $part) {
                $flush();
                continue;
            }
            if ([] === $open || abs($open[\count($open) - 2] - $part[0]) + abs($open[\count($open) - 1] - $part[1]) > 1e-6) {
                $flush();
                $open = [$part[0], $part[1]];
            }
            array_push($open, $part[2], $part[3]);
        }
        $flush();
    }

    /** Coordinates of grid lines where they leave the window, outside it: eastings below and above, northings beside. */
    private function border(Placement $p): void
    {
        foreach ($p->grid(ScaleChoice::grid($p->denominator)) as [$axis, $at, $x0, $y0, $x1, $y1]) {
            $text = strrev(implode(' ', str_split(strrev(\sprintf('%.0f', $at)), 3))).('e' === $axis ? ' E' : ' N');
            foreach ([[$x0, $y0], [$x1, $y1]] as [$x, $y]) {
                $this->pen(1.5, self::QUIET, '');
                $width = $this->GetStringWidth($text);
                if (abs($y - $p->top - $p->height) < 0.01 && 'e' === $axis) {
                    $this->words($x - 0.5 * $width, $y + 0.6, $text, 1.5, self::QUIET);
                } elseif (abs($x - $p->left) < 0.01 && 'n' === $axis) {
                    $this->StartTransform();
                    $this->Rotate(90.0, $x - 0.8, $y);
                    $this->words($x - 0.8 - 0.5 * $width, $y - 1.9, $text, 1.5, self::QUIET);
                    $this->StopTransform();
                }
            }
        }
    }

    private function north(Placement $p): void
    {
        [$x, $y] = [$p->left + $p->width - 8.0, $p->top + 10.0];
        $this->StartTransform();
        $this->Rotate(-$p->rotation, $x, $y);
        $this->stroke(self::INK, 0.3);
        $this->setFillColor(...self::INK);
        $this->Line($x, $y + 6.0, $x, $y - 3.0);
        $this->Polygon([$x - 1.4, $y - 2.0, $x + 1.4, $y - 2.0, $x, $y - 6.0], 'DF');
        $this->words($x + 1.4, $y + 2.5, 'N', 2.6, self::INK, 'B');
        $this->StopTransform();
    }

    /** Both of its words begin where its ends are: whoever measures the file finds its length. */
    private function bar(Placement $p): void
    {
        $metres = ScaleChoice::grid($p->denominator);
        $length = 1000.0 * $metres / $p->denominator;
        [$x, $y] = [$p->left + 4.0, $p->top + $p->height - 4.0];
        $this->stroke(self::INK, 0.25);
        $this->setFillColor(...self::INK);
        $this->Rect($x, $y, 0.5 * $length, 1.0, 'DF');
        $this->Rect($x + 0.5 * $length, $y, 0.5 * $length, 1.0);
        $this->words($x, $y - 2.6, '0', 1.9, self::INK);
        $this->words($x + $length, $y - 2.6, self::plain($metres).' m', 1.9, self::INK);
        $this->words($x + $length + 12.0, $y - 2.6, '1 : '.self::plain($p->denominator), 1.9, self::INK);
    }

    private function legend(Placement $p, DrawnView $view): void
    {
        $seen = [];
        foreach ($view->layers as $layer) {
            if ($layer['prints']) {
                $seen[$layer['name']] ??= $layer;
            }
        }
        $y = $p->top + 3.0;
        foreach (\array_slice(array_values($seen), 0, 14) as $layer) {
            $this->stroke(self::rgb($layer['colour']), $layer['width']);
            $this->Line($p->left + 3.0, $y + 1.1, $p->left + 11.0, $y + 1.1);
            $this->words($p->left + 12.5, $y, $layer['name'], 1.8, self::INK);
            $y += 3.2;
        }
    }

    /** Draws on a layer of the file. */
    private function apart(string $layer, bool $prints, \Closure $draw): void
    {
        $this->startLayer($layer, $prints, true);
        $draw();
        $this->endLayer();
    }

    /** @param list<int> $colour */
    private function words(float $x, float $y, string $text, float $size, array $colour, string $style = ''): void
    {
        if ('' !== $text) {
            $this->pen($size, $colour, $style);
            $this->Text($x, $y, $text);
        }
    }

    /** @param list<int> $colour */
    private function pen(float $size, array $colour, string $style): void
    {
        $this->setTextColor(...$colour);
        $this->setFont(self::TYPEFACE, $style, $size * self::POINT);
    }

    /** @param list<int> $colour */
    private function stroke(array $colour, float $width): void
    {
        $this->setLineStyle(['width' => $width, 'cap' => 'round', 'join' => 'round', 'dash' => 0, 'color' => $colour]);
    }

    private function fit(string $text, float $width, float $size): string
    {
        $this->pen($size, self::INK, '');

        return $this->cut($text, $width);
    }

    private function cut(string $text, float $width): string
    {
        if ($this->GetStringWidth($text) <= $width) {
            return $text;
        }
        while ('' !== $text && $this->GetStringWidth($text.'…') > $width) {
            $text = mb_substr($text, 0, -1);
        }

        return $text.'…';
    }

    /** @return list<int> */
    private static function rgb(string $css): array
    {
        return array_map(static fn (string $part): int => (int) hexdec($part), str_split(substr($css, 1), 2));
    }

    private static function plain(float $number): string
    {
        return rtrim(rtrim(\sprintf('%.3F', $number), '0'), '.');
    }
}
