<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Export\ReportPages;
use App\Network\View\NetworkView;

/** The network drawn on a page of the PDF: sights, vectors, stations with ellipses, scale bar, north. */
final readonly class NetworkSketch
{
    private const LEFT = 60.0;
    private const WIDTH = 475.0;
    private const HEIGHT = 300.0;
    /** Corners an ellipse is drawn with. */
    private const CORNERS = 32;

    private float $top;
    private ReportMap $map;

    private function __construct(private ReportPages $page, private NetworkView $view)
    {
        $this->map = new ReportMap($view, self::WIDTH, self::HEIGHT);
        $this->top = $page->room(self::HEIGHT);
    }

    public static function draw(ReportPages $page, NetworkView $view): void
    {
        if ([] === $view->stations) {
            return;
        }
        $sketch = new self($page, $view);
        $sketch->lines();
        $sketch->stations();
        $sketch->legend();
    }

    private function lines(): void
    {
        $this->page->setLineWidth(0.5);
        foreach ($this->map->lines as $l) {
            $this->page->setDrawColor(...($l['vector'] ? ReportPages::BLUE : ReportPages::GREY));
            $this->page->Line(self::LEFT + $l['x1'], $this->top + $l['y1'], self::LEFT + $l['x2'], $this->top + $l['y2']);
        }
    }

    private function stations(): void
    {
        $this->page->pen(ReportPages::INK, '', 6.5);
        foreach ($this->map->stations as $s) {
            [$x, $y] = [self::LEFT + $s['x'], $this->top + $s['y']];
            if ($s['a'] > 0.0) {
                $this->ellipse($x, $y, $s['a'], $s['b'], deg2rad($s['bearing']));
            }
            $this->page->setDrawColor(...ReportPages::INK);
            $this->page->setFillColor(...($s['held'] ? ReportPages::INK : [255, 255, 255]));
            $this->page->setLineWidth(0.6);
            $this->page->Rect($x - 1.8, $y - 1.8, 3.6, 3.6, 'DF');
            if ('' !== $s['name']) {
                $this->page->word($x + 4.0, $y - 3.5, $s['name']);
            }
        }
    }

    private function ellipse(float $x, float $y, float $a, float $b, float $bearing): void
    {
        $this->page->setDrawColor(...ReportPages::BLUE);
        $this->page->setLineWidth(0.5);
        $last = null;
        for ($i = 0; $i <= self::CORNERS; ++$i) {
            $u = 2.0 * \M_PI * $i / self::CORNERS;
            [$along, $across] = [$a * cos($u), $b * sin($u)];
            $at = [
                $x + $along * sin($bearing) + $across * cos($bearing), $y - $along * cos($bearing) + $across * sin($bearing),
            ];
            if (null !== $last) {
                $this->page->Line(...$last, ...$at);
            }
            $last = $at;
        }
    }

    private function legend(): void
    {
        $y = $this->top + self::HEIGHT - 6.0;
        $this->page->setDrawColor(...ReportPages::INK);
        $this->page->setLineWidth(1.0);
        $this->page->Line(self::LEFT, $y, self::LEFT + $this->map->bar * $this->map->scale, $y);
        $this->page->word(self::LEFT, $y - 4.0, $this->map->legend($this->view));
        $right = self::LEFT + self::WIDTH - 8.0;
        $this->page->word($right - 2.0, $this->top + 8.0, 'N');
        $this->page->Line($right, $this->top + 12.0, $right, $this->top + 26.0);
    }
}
