<?php

declare(strict_types=1);

namespace Mensura\Image;

/**
 * What of a block enters the solution: rays of tie points that two images see, and of control; images that are left with a
 * ray. Check points never enter.
 */
final readonly class UsedRays
{
    /**
     * @param array<int, true> $images
     * @param array<int, true> $points
     * @param list<int>        $rays
     */
    private function __construct(public array $images, public array $points, public array $rays)
    {
    }

    public static function of(Block $b): self
    {
        $points = [];
        foreach ($b->roles as $i => $role) {
            if (Block::CHECK !== $role) {
                $points[$i] = true;
            }
        }
        // A point seen twice by one image is seen by one image.
        $seen = $count = [];
        foreach ($b->rayPoint as $r => $p) {
            $seen[$p][$b->rayImage[$r]] = true;
        }
        foreach ($points as $p => $_) {
            $count[$p] = \count($seen[$p] ?? []);
            if (Block::TIE === $b->roles[$p] && $count[$p] < 2) {
                unset($points[$p]);
            }
        }
        $images = $rays = [];
        foreach ($b->rayPoint as $r => $p) {
            if (isset($points[$p])) {
                $rays[] = $r;
                $images[$b->rayImage[$r]] = true;
            }
        }
        ksort($images);

        return new self($images, $points, $rays);
    }

    /** Control points that are seen. */
    public function control(Block $b): int
    {
        $seen = [];
        foreach ($this->rays as $r) {
            if (Block::CONTROL === $b->roles[$b->rayPoint[$r]]) {
                $seen[$b->rayPoint[$r]] = true;
            }
        }

        return \count($seen);
    }
}
