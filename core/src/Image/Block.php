<?php

declare(strict_types=1);

namespace Mensura\Image;

/**
 * Images, points and the rays between them, as they are given. Flat: coordinates e, n, h in metres, three a thing; pixels.
 * Camera axes: x right, y up, z towards the viewer.
 */
final class Block
{
    public const TIE = 'tie';
    public const CONTROL = 'control';
    public const CHECK = 'check';

    /** @var list<string> */
    public array $cameraIds = [];
    /** @var list<list<float>> in the order of {@see Lens::NAMES} */
    public array $cameras = [];
    /** @var list<array<string, float>> width and height, pixels, where they are given */
    public array $cameraSizes = [];
    /** @var list<list<int>> which of them are solved */
    public array $solved = [];

    /** @var list<string> */
    public array $imageIds = [];
    /** @var list<int> */
    public array $cameraOf = [];
    /** @var list<array{float, float, float}> */
    public array $positions = [];
    /** @var list<?list<float>> rotations from camera axes; null where they are to be found */
    public array $rotations = [];
    /** @var list<?array{float, float, float}> standard deviations of positions; null where they are approximations */
    public array $positionSds = [];
    /** @var array<int, list<float>> rotations as they were observed */
    public array $rotationsGiven = [];
    /**
     * @var array<int, array{float, float, float}> standard deviations of rotations about east, north and up, degrees, of observed ones
     */
    public array $turnSds = [];

    /** @var list<string> */
    public array $pointIds = [];
    /** @var list<string> */
    public array $roles = [];
    /** @var list<?array{float, float, float}> */
    public array $places = [];
    /** @var list<?array{float, float, float}> of control; null where it is held, and of others */
    public array $placeSds = [];

    /** @var list<int> */
    public array $rayImage = [];
    /** @var list<int> */
    public array $rayPoint = [];
    /** @var list<float> */
    public array $rayX = [];
    /** @var list<float> */
    public array $rayY = [];
    /** @var list<float> */
    public array $raySd = [];

    public function isHeld(int $point): bool
    {
        return self::CONTROL === $this->roles[$point] && null === $this->placeSds[$point];
    }
}
