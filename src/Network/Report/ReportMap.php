<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Export\RoundNumber;
use App\Network\View\NetworkView;
use App\Network\View\StationView;

/**
 * The network placed on a sheet of a report: sights, vectors, stations with ellipses at a stated exaggeration. Sheet units,
 * y downwards.
 */
final readonly class ReportMap
{
    private const MARGIN = 26.0;
    /** Largest ellipse, of the network's extent. */
    private const LARGEST = 0.06;
    /** More names than this lie over each other. */
    private const MOST_NAMES = 150;

    /** Sheet units in a metre. */
    public float $scale;
    public float $exaggeration;
    /** Metres of the scale bar. */
    public float $bar;

    /** @var list<array{x1: float, y1: float, x2: float, y2: float, vector: bool}> */
    public array $lines;

    /**
     * @var list<array{x: float, y: float, name: string, held: bool, a: float, b: float, bearing: float}> half axes of the
     *     ellipse, 0 for none
     */
    public array $stations;

    public function __construct(NetworkView $view, public float $width, public float $height)
    {
        $e = array_map(static fn (StationView $s): float => $s->e, $view->stations) ?: [0.0];
        $n = array_map(static fn (StationView $s): float => $s->n, $view->stations) ?: [0.0];
        $east = max(1.0, max($e) - min($e));
        $north = max(1.0, max($n) - min($n));
        $span = max($east, $north * $width / $height, 1.0);
        $this->scale = min(($width - 2.0 * self::MARGIN) / $east, ($height - 2.0 * self::MARGIN) / $north);
        $largest = max(1e-6, ...array_map(static fn (StationView $s): float => $s->semiMajor, $view->stations));
        $this->exaggeration = RoundNumber::atMost($span * self::LARGEST / $largest);
        $this->bar = RoundNumber::atMost($span / 5.0);
        $place = $stations = [];
        $named = \count($view->stations) <= self::MOST_NAMES;
        foreach ($view->stations as $s) {
            $x = self::MARGIN + ($s->e - min($e)) * $this->scale;
            $y = $height - self::MARGIN - ($s->n - min($n)) * $this->scale;
            $place[$s->name] = [$x, $y];
            $a = $s->semiMajor * $this->exaggeration * $this->scale;
            $stations[] = [
                'x' => $x, 'y' => $y, 'name' => $named ? $s->name : '', 'held' => '' !== $s->held, 'a' => $a,
                'b' => $a > 0.0 ? max(0.3, $s->semiMinor * $this->exaggeration * $this->scale) : 0.0, 'bearing' => $s->bearing,
            ];
        }
        $this->stations = $stations;
        $lines = [];
        foreach ($view->rows as $r) {
            $key = $r->at < $r->to ? $r->at."\0".$r->to : $r->to."\0".$r->at;
            if (!isset($lines[$key]) && isset($place[$r->at], $place[$r->to])) {
                [$x1, $y1] = $place[$r->at];
                [$x2, $y2] = $place[$r->to];
                $lines[$key] = ['x1' => $x1, 'y1' => $y1, 'x2' => $x2, 'y2' => $y2, 'vector' => 'vector' === $r->kind];
            }
        }
        $this->lines = array_values($lines);
    }

    public function legend(NetworkView $view): string
    {
        return \sprintf(
            '%s m      ellipses %.0f %%, drawn x %s; grey: sighted, blue: GNSS vector; filled: held',
            $this->bar, 100.0 * $view->runs[0]->confidence, $this->exaggeration,
        );
    }
}
