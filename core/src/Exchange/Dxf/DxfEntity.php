<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

/** One entity of a drawing: a point, a text, or a line of two vertices and more. Drawing units. */
final readonly class DxfEntity
{
    /**
     * @param string                            $kind     "point", "text" or "line"
     * @param list<array{float, float, float}> $vertices one for a point or text
     */
    public function __construct(public string $kind, public string $layer, public array $vertices, public string $text = '')
    {
    }

    /** Length of a line in plan, without closing it. */
    public function planLength(): float
    {
        $length = 0.0;
        for ($i = 1, $n = \count($this->vertices); $i < $n; ++$i) {
            [$x, $y] = $this->vertices[$i - 1];
            $length += hypot($this->vertices[$i][0] - $x, $this->vertices[$i][1] - $y);
        }

        return $length;
    }
}
