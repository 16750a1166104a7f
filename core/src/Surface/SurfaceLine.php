<?php

declare(strict_types=1);

namespace Mensura\Surface;

/**
 * A line that shapes a surface. Vertices in metres; a height may be missing. Boundaries and voids are closed (the
 * first vertex is not repeated).
 */
final readonly class SurfaceLine
{
    public const BREAKLINE = 'breakline';
    public const BOUNDARY = 'boundary';
    public const VOID = 'void';

    /**
     * @param list<array{float, float, ?float}> $vertices
     * @param list<self>                        $islands  rings within a void where the surface stands
     */
    public function __construct(public string $role, public string $name, public array $vertices, public array $islands = [])
    {
    }

    /**
     * These lines, and the islands in them as lines of their own.
     *
     * @param list<self> $lines
     *
     * @return list<self>
     */
    public static function flat(array $lines): array
    {
        return array_merge([], ...array_map(static fn (self $line): array => [$line, ...$line->islands], $lines));
    }

    /** Whether a place lies inside this ring and on none of its islands. */
    public function contains(float $px, float $py): bool
    {
        $inside = false;
        foreach ($this->segments() as [$a, $b]) {
            [$ax, $ay] = $this->vertices[$a];
            [$bx, $by] = $this->vertices[$b];
            if (($ay > $py) !== ($by > $py) && $px < $ax + ($py - $ay) / ($by - $ay) * ($bx - $ax)) {
                $inside = !$inside;
            }
        }
        foreach ($this->islands as $island) {
            $inside = $inside && !$island->contains($px, $py);
        }

        return $inside;
    }

    /** Area inside the ring by the trapezoidal formula, square metres. */
    public function area(): float
    {
        $sum = 0.0;
        [$x0, $y0] = $this->vertices[0] ?? [0.0, 0.0];
        foreach ($this->segments() as [$a, $b]) {
            $sum += ($this->vertices[$a][0] - $x0) * ($this->vertices[$b][1] - $y0)
                - ($this->vertices[$b][0] - $x0) * ($this->vertices[$a][1] - $y0);
        }

        return abs(0.5 * $sum);
    }

    public function isClosed(): bool
    {
        return self::BREAKLINE !== $this->role;
    }

    /** @return list<array{int, int}> vertex numbers of each segment */
    public function segments(): array
    {
        $n = \count($this->vertices);
        $list = [];
        for ($i = 0; $i + 1 < $n; ++$i) {
            $list[] = [$i, $i + 1];
        }
        if ($this->isClosed() && $n > 2) {
            $list[] = [$n - 1, 0];
        }

        return $list;
    }
}
