<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;

/**
 * A line that shapes a surface. Vertices in metres; a height may be missing. Boundaries and voids are closed (the
 * first vertex is not repeated).
 */
final readonly class SurfaceLine
{
    public const BREAKLINE = 'breakline';
    public const BOUNDARY = 'boundary';
    public const VOID = 'void';
    public const ROLES = [self::BREAKLINE, self::BOUNDARY, self::VOID];

    /** Square metres: of a square whose side is one place. */
    private const NOTHING = 1e-8;

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

    /**
     * A ring that can cut a surface has three vertices, crosses itself nowhere and encloses something.
     *
     * @throws UnusableInput naming the place
     */
    public function refuseUnusableRing(): void
    {
        if (\count($this->vertices) < 3) {
            throw new UnusableInput($this->name, \sprintf('a %s needs at least three vertices', $this->role));
        }
        $segments = [];
        $count = \count($this->vertices);
        foreach ($this->segments() as [$a, $b]) {
            $segments[] = [$this->vertices[$a][0], $this->vertices[$a][1], $this->vertices[$b][0], $this->vertices[$b][1]];
        }
        foreach (SegmentIndex::pairs($segments) as [$i, $j]) {
            $adjacent = 1 === $j - $i || 0 === $i && $j === $count - 1;
            $meeting = SegmentIndex::meeting($segments[$i], $segments[$j]);
            if (null !== $meeting && !$adjacent) {
                throw new UnusableInput($this->name, \sprintf(
                    'this %s crosses itself at %.3f, %.3f (segments %d and %d); correct the order of its vertices',
                    $this->role, $segments[$i][0] + $meeting[0] * ($segments[$i][2] - $segments[$i][0]),
                    $segments[$i][1] + $meeting[0] * ($segments[$i][3] - $segments[$i][1]), $i + 1, $j + 1,
                ));
            }
        }
        if ($this->area() < self::NOTHING) {
            throw new UnusableInput($this->name, \sprintf('this %s encloses nothing: all its vertices lie on one line', $this->role));
        }
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
