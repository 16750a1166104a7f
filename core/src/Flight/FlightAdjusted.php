<?php

declare(strict_types=1);

namespace Mensura\Flight;

use Mensura\Image\Block;
use Mensura\Image\BlockAdjustment;
use Mensura\Image\BlockResult;
use Mensura\Image\UsedRays;

/** A block of a flight, adjusted. */
final readonly class FlightAdjusted
{
    /** @param array<string, true> $left rays that contradicted the others, "image track" */
    public function __construct(
        public Block $block, public UsedRays $used, private BlockAdjustment $adjustment, public BlockResult $result, public array $left,
    ) {
    }

    /** @return array<int, int> rays of each image that are used */
    public function raysOf(): array
    {
        $count = array_fill_keys(array_keys($this->block->imageIds), 0);
        foreach ($this->used->rays as $r) {
            ++$count[$this->block->rayImage[$r]];
        }

        return $count;
    }

    /**
     * Control and check points against what is given of them: of control as adjusted, of others where their rays meet.
     *
     * @return list<array{id: string, role: string, rays: int, off: ?array{float, float, float}}> computed minus given, metres
     */
    public function known(): array
    {
        $b = $this->block;
        $rays = [];
        foreach ($b->rayPoint as $r => $p) {
            $rays[$p][] = $r;
        }
        $known = [];
        foreach ($b->roles as $p => $role) {
            $given = $b->places[$p];
            if (Block::TIE === $role || null === $given) {
                continue;
            }
            // Control is intersected too: what its marks say against what it is held at.
            $at = $this->adjustment->intersected($rays[$p] ?? [], $given)[0] ?? null;
            $known[] = [
                'id' => $b->pointIds[$p], 'role' => $role, 'rays' => \count($rays[$p] ?? []),
                'off' => null === $at ? null : [$at[0] - $given[0], $at[1] - $given[1], $at[2] - $given[2]],
            ];
        }

        return $known;
    }

    /**
     * Where the images show a place.
     *
     * @param array{float, float, float} $place
     *
     * @return ?array{float, float} pixels; null where it lies behind
     */
    public function pixel(int $image, array $place): ?array
    {
        return isset($this->result->rotations[$image]) ? $this->adjustment->pixel($image, $place) : null;
    }
}
