<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Network\View\NetworkView;

/** The network as a plain SVG drawing for reports: sights, vectors, stations with ellipses at a stated exaggeration, scale bar, north. */
final class NetworkSketch
{
    private const WIDTH = 700.0;
    private const HEIGHT = 430.0;
    private const MARGIN = 50.0;

    public static function svg(NetworkView $view): string
    {
        $e = array_map(static fn ($s): float => $s->e, $view->stations);
        $n = array_map(static fn ($s): float => $s->n, $view->stations);
        if ([] === $e) {
            return '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"/>';
        }
        $span = max(max($e) - min($e), (max($n) - min($n)) * self::WIDTH / self::HEIGHT, 1.0);
        $scale = min((self::WIDTH - 2 * self::MARGIN) / max(max($e) - min($e), 1.0), (self::HEIGHT - 2 * self::MARGIN) / max(max($n) - min($n), 1.0));
        $x = static fn (float $v): float => self::MARGIN + ($v - min($e)) * $scale;
        $y = static fn (float $v): float => self::HEIGHT - self::MARGIN - ($v - min($n)) * $scale;
        $largest = max(1e-6, ...array_map(static fn ($s): float => $s->semiMajor, $view->stations));
        $exaggeration = self::round($span * 0.06 / $largest);
        $place = [];
        foreach ($view->stations as $s) {
            $place[$s->name] = [$x($s->e), $y($s->n)];
        }
        $svg = \sprintf('<svg xmlns="http://www.w3.org/2000/svg" width="%d" height="%d" viewBox="0 0 %1$d %2$d" font-family="Helvetica" font-size="9">', self::WIDTH, self::HEIGHT);
        $drawn = [];
        foreach ($view->rows as $r) {
            $key = $r->at < $r->to ? $r->at.$r->to : $r->to.$r->at;
            if (isset($drawn[$key]) || !isset($place[$r->at], $place[$r->to])) {
                continue;
            }
            $drawn[$key] = true;
            $svg .= \sprintf('<line x1="%.1f" y1="%.1f" x2="%.1f" y2="%.1f" stroke="%s" stroke-width="0.6"%s/>', ...$place[$r->at], ...[...$place[$r->to], 'vector' === $r->kind ? '#2a5bd7' : '#78818c', 'vector' === $r->kind ? ' stroke-dasharray="2,2"' : '']);
        }
        foreach ($view->stations as $s) {
            [$px, $py] = $place[$s->name];
            if ($s->semiMajor > 0.0) {
                $svg .= \sprintf('<ellipse cx="%.1f" cy="%.1f" rx="%.2f" ry="%.2f" transform="rotate(%.1f %.1f %.1f)" fill="none" stroke="#2a5bd7" stroke-width="0.8"/>', $px, $py, $s->semiMajor * $exaggeration * $scale, max(0.3, $s->semiMinor * $exaggeration * $scale), $s->bearing - 90.0, $px, $py);
            }
            $svg .= \sprintf('<rect x="%.1f" y="%.1f" width="5" height="5" fill="%s" stroke="#1f2a37" stroke-width="0.8"/><text x="%.1f" y="%.1f" fill="#1f2a37">%s</text>', $px - 2.5, $py - 2.5, '' === $s->held ? '#ffffff' : '#1f2a37', $px + 6, $py - 5, htmlspecialchars($s->name, \ENT_XML1));
        }
        $bar = self::round($span / 5.0);
        $svg .= \sprintf('<path d="M 20 %.1f h %.1f" stroke="#1f2a37" stroke-width="1.2"/><text x="20" y="%.1f">%s m</text><text x="%.1f" y="%.1f">ellipses %.0f %%, drawn x %s</text><text x="%.1f" y="22">N</text><path d="M %.1f 40 v -14" stroke="#1f2a37"/>', self::HEIGHT - 12, $bar * $scale, self::HEIGHT - 16, $bar, 40 + $bar * $scale, self::HEIGHT - 12, 100.0 * $view->runs[0]->confidence, $exaggeration, self::WIDTH - 24, self::WIDTH - 21);

        return $svg.'</svg>';
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
