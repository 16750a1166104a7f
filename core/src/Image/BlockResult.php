<?php

declare(strict_types=1);

namespace Mensura\Image;

/** What a block adjustment found. By the numbers of the block; metres, pixels, degrees. */
final class BlockResult
{
    public bool $converged = false;
    public int $iterations = 0;
    public int $redundancy = 0;

    /** Null without redundancy. */
    public ?float $sigma0 = null;

    /** @var list<list<float>> */
    public array $cameras = [];
    /** @var array<int, array<int, float>> of values that were solved */
    public array $cameraSds = [];

    /** @var array<int, array{float, float, float}> */
    public array $positions = [];
    /** @var array<int, list<float>> */
    public array $rotations = [];
    /** @var array<int, array{float, float, float}> */
    public array $positionSds = [];
    /** @var array<int, array{float, float, float}> */
    public array $angleSds = [];

    /** @var array<int, array{float, float, float}> */
    public array $places = [];
    /** @var array<int, array{float, float, float}> */
    public array $placeSds = [];

    /** @var array<int, array{float, float, ?float}> residuals, computed minus observed, and the greater of both standardized */
    public array $rays = [];
}
