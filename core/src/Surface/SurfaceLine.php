<?php

declare(strict_types=1);

namespace Mensura\Surface;

/** A line that shapes a surface. Vertices in metres; a height may be missing. Boundaries and voids are closed (the first vertex is not repeated). */
final readonly class SurfaceLine
{
    public const BREAKLINE = 'breakline';
    public const BOUNDARY = 'boundary';
    public const VOID = 'void';

    /**
     * @param list<array{float, float, ?float}> $vertices
     */
    public function __construct(public string $role, public string $name, public array $vertices)
    {
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
