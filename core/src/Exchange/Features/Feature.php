<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features;

/**
 * One thing of a file: where it is and what is said of it. Parts are polygons of rings, lines, or points; what has one part has a list
 * of one. Places are [x, y, height or null] in the file's own system, longitude before latitude in geographic ones.
 */
final class Feature
{
    public const POINT = 'point';
    public const LINE = 'line';
    public const POLYGON = 'polygon';
    public const FACE = 'face';

    /**
     * @param list<list<list<array{float, float, ?float}>>> $parts      a point is [[place]], a line [[places]], a polygon its rings, each
     *                                                                  closed by its first place
     * @param array<string, string|int|float|bool|null>     $properties by name, in the file's order
     */
    public function __construct(public string $kind, public string $layer, public array $parts, public array $properties = [])
    {
    }

    /** @return \Generator<array{float, float, ?float}> */
    public function places(): \Generator
    {
        foreach ($this->parts as $rings) {
            foreach ($rings as $ring) {
                yield from $ring;
            }
        }
    }

    public function hasHeights(): bool
    {
        foreach ($this->places() as [, , $h]) {
            if (null !== $h) {
                return true;
            }
        }

        return false;
    }
}
