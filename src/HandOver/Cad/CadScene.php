<?php

declare(strict_types=1);

namespace App\HandOver\Cad;

use Mensura\Alignment\Alignment;

/**
 * What goes into a drawing, each thing on its layer. Metres.
 *
 * @phpstan-type CadPoint array{layer: string, name: string, e: float, n: float, h: ?float, code: string, symbol: string}
 * @phpstan-type CadLine array{layer: string, name: string, vertices: list<array{float, float, float}>, contour: ?float}
 * @phpstan-type CadSurface array{layer: string, name: string, x: list<float>, y: list<float>, z: list<float>, triangles: list<int>}
 */
final class CadScene
{
    /** @var list<CadPoint> */
    public array $points = [];

    /** @var list<CadLine> a closed line ends where it begins; contour: its height, where it is flat */
    public array $lines = [];

    /** @var list<CadSurface> */
    public array $surfaces = [];

    /** @var list<Alignment> */
    public array $alignments = [];

    /** @var array<string, array{from: string, colour: int, style: string, count: int}> by layer: what it would be called otherwise */
    public array $layers = [];

    public function faces(): int
    {
        return (int) array_sum(array_map(static fn (array $s): int => intdiv(\count($s['triangles']), 3), $this->surfaces));
    }
}
