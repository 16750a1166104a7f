<?php

declare(strict_types=1);

namespace Mensura\Cloud;

/** Points of a cloud, no more than can be held: of more, one a cube, which grows until they fit. */
final class HeldPoints
{
    private PointBlock $all;
    private ?Thin $thin = null;

    /** @param float $side of the first cubes, metres */
    public function __construct(private readonly int $most, private float $side)
    {
        $this->all = new PointBlock();
    }

    public function add(PointBlock $points): void
    {
        null === $this->thin ? $this->all->add($points) : $this->thin->take($points);
        for ($of = $this->points(); $of->count() > $this->most; $of = $this->thin->kept) {
            $this->thin = new Thin($this->side);
            $this->thin->take($of);
            $this->all = new PointBlock();
            $this->side *= 1.5;
        }
    }

    public function points(): PointBlock
    {
        return $this->thin->kept ?? $this->all;
    }
}
