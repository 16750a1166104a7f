<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Network\View\NetworkView;
use App\Network\View\StationView;

/** The network drawn on a report page: sights, vectors, stations with ellipses at a stated exaggeration, scale bar, north. */
final class NetworkSketch
{
    private const LEFT = 60.0;
    private const WIDTH = 475.0;
    private const HEIGHT = 300.0;
    private const MARGIN = 26.0;
    /** Corners an ellipse is drawn with. */
    private const CORNERS = 32;
    /** Largest ellipse, of the network's extent. */
    private const LARGEST = 0.06;
    /** More names than this lie over each other. */
    private const MOST_NAMES = 150;

    private readonly float $scale;
    private readonly float $exaggeration;
    private readonly float $top;
    private readonly float $span;

    /** @var array{float, float, float, float} least easting and northing, extent in both, metres */
    private readonly array $box;

    private function __construct(private readonly ReportPages $page, private readonly NetworkView $view)
    {
        $e = array_map(static fn (StationView $s): float => $s->e, $view->stations);
        $n = array_map(static fn (StationView $s): float => $s->n, $view->stations);
        $this->box = [
            min([...$e, \INF]), min([...$n, \INF]), max(1.0, max($e ?: [0.0]) - min($e ?: [0.0])),
            max(1.0, max($n ?: [0.0]) - min($n ?: [0.0])),
        ];
        $this->span = max($this->box[2], $this->box[3] * self::WIDTH / self::HEIGHT, 1.0);
        $this->scale = min((self::WIDTH - 2.0 * self::MARGIN) / $this->box[2], (self::HEIGHT - 2.0 * self::MARGIN) / $this->box[3]);
        $largest = max(1e-6, ...array_map(static fn (StationView $s): float => $s->semiMajor, $view->stations));
        $this->exaggeration = self::round($this->span * self::LARGEST / $largest);
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
        $place = [];
        foreach ($this->view->stations as $s) {
            $place[$s->name] = [$this->x($s->e), $this->y($s->n)];
        }
        $drawn = [];
        $this->page->setLineWidth(0.5);
        foreach ($this->view->rows as $r) {
            $key = $r->at < $r->to ? $r->at."\0".$r->to : $r->to."\0".$r->at;
            if (isset($drawn[$key]) || !isset($place[$r->at], $place[$r->to])) {
                continue;
            }
            $drawn[$key] = true;
            $this->page->setDrawColor(...('vector' === $r->kind ? ReportPages::BLUE : ReportPages::GREY));
            $this->page->Line(...$place[$r->at], ...$place[$r->to]);
        }
    }

    private function stations(): void
    {
        $this->page->pen(ReportPages::INK, '', 6.5);
        $named = \count($this->view->stations) <= self::MOST_NAMES;
        foreach ($this->view->stations as $s) {
            [$x, $y] = [$this->x($s->e), $this->y($s->n)];
            if ($s->semiMajor > 0.0) {
                $this->ellipse($x, $y, $s);
            }
            $this->page->setDrawColor(...ReportPages::INK);
            $this->page->setFillColor(...('' === $s->held ? [255, 255, 255] : ReportPages::INK));
            $this->page->setLineWidth(0.6);
            $this->page->Rect($x - 1.8, $y - 1.8, 3.6, 3.6, 'DF');
            if ($named) {
                $this->page->word($x + 4.0, $y - 3.5, $s->name);
            }
        }
    }

    private function ellipse(float $x, float $y, StationView $s): void
    {
        $a = $s->semiMajor * $this->exaggeration * $this->scale;
        $b = max(0.3, $s->semiMinor * $this->exaggeration * $this->scale);
        $t = deg2rad($s->bearing);
        $this->page->setDrawColor(...ReportPages::BLUE);
        $this->page->setLineWidth(0.5);
        $last = null;
        for ($i = 0; $i <= self::CORNERS; ++$i) {
            $u = 2.0 * \M_PI * $i / self::CORNERS;
            [$along, $across] = [$a * cos($u), $b * sin($u)];
            $at = [$x + $along * sin($t) + $across * cos($t), $y - $along * cos($t) + $across * sin($t)];
            if (null !== $last) {
                $this->page->Line(...$last, ...$at);
            }
            $last = $at;
        }
    }

    private function legend(): void
    {
        $bar = self::round($this->span / 5.0);
        $y = $this->top + self::HEIGHT - 6.0;
        $this->page->setDrawColor(...ReportPages::INK);
        $this->page->setLineWidth(1.0);
        $this->page->Line(self::LEFT, $y, self::LEFT + $bar * $this->scale, $y);
        $words = '%s m      ellipses %.0f %%, drawn x %s; grey: sighted, blue: GNSS vector; filled: held';
        $this->page->word(self::LEFT, $y - 4.0, \sprintf($words, $bar, 100.0 * $this->view->runs[0]->confidence, $this->exaggeration));
        $right = self::LEFT + self::WIDTH - 8.0;
        $this->page->word($right - 2.0, $this->top + 8.0, 'N');
        $this->page->Line($right, $this->top + 12.0, $right, $this->top + 26.0);
    }

    private function x(float $e): float
    {
        return self::LEFT + self::MARGIN + ($e - $this->box[0]) * $this->scale;
    }

    private function y(float $n): float
    {
        return $this->top + self::HEIGHT - self::MARGIN - ($n - $this->box[1]) * $this->scale;
    }

    /** 1, 2 or 5 times a power of ten, at most the value. */
    private static function round(float $value): float
    {
        $power = 10 ** floor(log10($value));
        foreach ([5.0, 2.0, 1.0] as $step) {
            if ($value >= $step * $power) {
                return $step * $power;
            }
        }

        return $power;
    }
}
