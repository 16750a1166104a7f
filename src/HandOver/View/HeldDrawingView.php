<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** Points and lines of a package, read back from its zip. Metres. */
final readonly class HeldDrawingView
{
    /**
     * @param list<array{name: string, e: float, n: float, h: ?float, code: string}> $points
     * @param list<array{layer: string, vertices: list<list<float>>}> $lines
     * @param list<array{layer: string, vertices: list<list<float>>}> $background
     * @param list<array{name: string, start: float, length: float, e: list<float>, n: list<float>, stations: list<float>}> $alignments
     */
    public function __construct(public array $points, public array $lines, public array $background, public array $alignments)
    {
    }
}
