<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\Graph\CycleBasis;

/** Closed chains of baselines, and baselines measured more than once; the worst first. Metres. */
final class VectorLoops
{
    /** @var list<VectorLoop> */
    public array $loops = [];

    /** @var list<VectorRepeat> */
    public array $repeats = [];

    /**
     * @param list<array{from: string, to: string, session: string, vector: array{float, float, float}}> $vectors geocentric
     * @param float $constant what a loop or a repeat may miss by, whatever its length
     * @param float $ppm      and by millionths of its length
     */
    public function __construct(private readonly array $vectors, Horizon $horizon, float $constant, float $ppm)
    {
        $edges = [];
        $pairs = [];
        foreach ($vectors as $i => $v) {
            $edges[] = [$v['from'], $v['to'], self::length($v['vector'])];
            $pairs[min($v['from'], $v['to'])."\0".max($v['from'], $v['to'])][] = $i;
        }
        foreach (CycleBasis::of($edges) as $path) {
            if (\count($path) > 2) {
                $this->loops[] = $this->loop($path, $horizon, $constant, $ppm);
            }
        }
        foreach ($pairs as $list) {
            foreach (\array_slice($list, 1) as $i) {
                $this->repeats[] = $this->repeat($list[0], $i, $horizon, $constant, $ppm);
            }
        }
        usort($this->loops, static fn (VectorLoop $a, VectorLoop $b): int => $b->size() / $b->allowed <=> $a->size() / $a->allowed);
        usort($this->repeats, static fn (VectorRepeat $a, VectorRepeat $b): int => $b->size() / $b->allowed <=> $a->size() / $a->allowed);
    }

    /** @param list<array{int, int}> $path */
    private function loop(array $path, Horizon $horizon, float $constant, float $ppm): VectorLoop
    {
        $sum = [0.0, 0.0, 0.0];
        $length = 0.0;
        $names = $sessions = [];
        foreach ($path as [$i, $sense]) {
            $v = $this->vectors[$i];
            $names[] = 1 === $sense ? $v['from'] : $v['to'];
            $sessions[$v['session']] = true;
            $length += self::length($v['vector']);
            for ($c = 0; $c < 3; ++$c) {
                $sum[$c] += $sense * $v['vector'][$c];
            }
        }

        return new VectorLoop(
            $names, array_map(static fn (array $leg): int => $leg[0], $path), array_map(strval(...), array_keys($sessions)), $length,
            $horizon->components(...$sum), $constant + 1e-6 * $ppm * $length,
        );
    }

    private function repeat(int $i, int $j, Horizon $horizon, float $constant, float $ppm): VectorRepeat
    {
        $a = $this->vectors[$i];
        $b = $this->vectors[$j];
        $sense = $a['from'] === $b['from'] ? 1.0 : -1.0;
        $d = [];
        for ($c = 0; $c < 3; ++$c) {
            $d[] = $sense * $b['vector'][$c] - $a['vector'][$c];
        }
        $length = self::length($a['vector']);

        return new VectorRepeat(
            $a['from'], $a['to'], [$i, $j], [$a['session'], $b['session']], $length, $horizon->components($d[0], $d[1], $d[2]),
            $constant + 1e-6 * $ppm * $length,
        );
    }

    /** @param array{float, float, float} $v */
    private static function length(array $v): float
    {
        return sqrt($v[0] ** 2 + $v[1] ** 2 + $v[2] ** 2);
    }
}
