<?php

declare(strict_types=1);

namespace Mensura\Exchange\BlockJson;

use Mensura\Exchange\Json\JsonObject;
use Mensura\Fault\UnusableInput;
use Mensura\Image\Block;
use Mensura\Image\Lens;
use Mensura\Image\Rotation;

/** Reads images, points and rays, mensura-block/1. Every fault names its place as a JSON path. */
final class BlockJsonReader
{
    private const FARTHEST = 1e8;
    private const AXES = ['e', 'n', 'h'];
    private const ANGLES = ['omega', 'phi', 'kappa'];

    /** @var array<string, int> */
    private array $cameras = [];
    /** @var array<string, int> */
    private array $images = [];
    /** @var array<string, int> */
    private array $points = [];

    /** @throws UnusableInput */
    public function read(string $json): Block
    {
        $document = JsonObject::document($json, 'mensura-block/1');
        $block = new Block();
        foreach ($document->objects('cameras') as $row) {
            $this->camera($block, $row);
        }
        foreach ($document->objects('images') as $row) {
            $this->image($block, $row);
        }
        foreach ($document->objects('points') as $row) {
            $this->point($block, $row);
        }
        foreach ($document->objects('rays') as $row) {
            $block->rayImage[] = self::known($row, 'image', $this->images);
            $block->rayPoint[] = self::known($row, 'point', $this->points);
            $block->rayX[] = $row->required('x');
            $block->rayY[] = $row->required('y');
            $block->raySd[] = $row->positive('sd') ?? 1.0;
        }

        return $block;
    }

    private function camera(Block $block, JsonObject $row): void
    {
        self::once($row, $this->cameras, 'camera');
        $values = [];
        foreach (Lens::NAMES as $name) {
            $values[] = match ($name) {
                'f' => $row->positive('f') ?? throw $row->fault('f', 'is missing'),
                'cx', 'cy' => $row->required($name),
                default => $row->number($name) ?? 0.0,
            };
        }
        $solved = [];
        foreach ($row->words('solve') as $name) {
            $index = array_search($name, Lens::NAMES, true);
            if (false === $index) {
                throw $row->fault('solve', \sprintf('"%s" is no value of a camera; they are %s', $name, implode(', ', Lens::NAMES)));
            }
            $solved[$index] = $index;
        }
        ksort($solved);
        $block->cameraIds[] = $row->name('id');
        $block->cameras[] = $values;
        $block->cameraSizes[] = array_filter(['width' => $row->positive('width'), 'height' => $row->positive('height')]);
        $block->solved[] = array_values($solved);
    }

    private function image(Block $block, JsonObject $row): void
    {
        self::once($row, $this->images, 'image');
        $block->imageIds[] = $row->name('id');
        $block->cameraOf[] = self::known($row, 'camera', $this->cameras);
        $block->positions[] = self::place($row) ?? throw $row->fault('e', 'is missing');
        $given = array_filter(self::ANGLES, $row->has(...));
        if ([] !== $given && 3 !== \count($given)) {
            throw $row->fault(array_values(array_diff(self::ANGLES, $given))[0], 'is missing: give all three angles, or none');
        }
        $block->rotations[] = [] === $given ? null : Rotation::of(...array_map($row->required(...), self::ANGLES));
        $block->positionSds[] = self::deviations($row);
    }

    private function point(Block $block, JsonObject $row): void
    {
        self::once($row, $this->points, 'point');
        $role = $row->choice('role', [Block::TIE, Block::CONTROL, Block::CHECK]) ?? Block::TIE;
        $place = self::place($row);
        if (null === $place && Block::TIE !== $role) {
            throw $row->fault('e', "is missing: a $role point has coordinates");
        }
        $block->pointIds[] = $row->name('id');
        $block->roles[] = $role;
        $block->places[] = $place;
        $block->placeSds[] = Block::CONTROL === $role ? self::deviations($row) : null;
    }

    /** @return ?array{float, float, float} null where there is none of them */
    private static function place(JsonObject $row): ?array
    {
        $given = array_filter(self::AXES, $row->has(...));
        if ([] === $given) {
            return null;
        }
        $place = [];
        foreach (self::AXES as $axis) {
            $place[] = $row->within($axis, -self::FARTHEST, self::FARTHEST, 'm') ?? throw $row->fault($axis, 'is missing');
        }

        return [$place[0], $place[1], $place[2]];
    }

    /** @return ?array{float, float, float} */
    private static function deviations(JsonObject $row): ?array
    {
        if (!$row->has('sd')) {
            return null;
        }
        $sd = [];
        foreach (self::AXES as $axis) {
            $sd[] = $row->object('sd')->positive($axis) ?? throw $row->object('sd')->fault($axis, 'is missing: give e, n and h, or no sd');
        }

        return [$sd[0], $sd[1], $sd[2]];
    }

    /** @param array<string, int> $known */
    private static function once(JsonObject $row, array &$known, string $what): void
    {
        $id = $row->name('id');
        if (isset($known["n$id"])) {
            throw $row->fault('id', "$what \"$id\" is there twice");
        }
        $known["n$id"] = \count($known);
    }

    /** @param array<string, int> $known */
    private static function known(JsonObject $row, string $key, array $known): int
    {
        $id = $row->name($key);

        return $known["n$id"] ?? throw $row->fault($key, "there is no $key \"$id\"");
    }
}
