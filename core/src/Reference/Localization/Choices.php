<?php

declare(strict_types=1);

namespace Mensura\Reference\Localization;

/**
 * What is fitted and what is held. A held value is metres for shifts, degrees clockwise for the rotation, a plain
 * ratio for the scale; null means fitted. Vertical: "none", "shift" or "plane".
 */
final readonly class Choices
{
    public const NONE = 'none';
    public const SHIFT = 'shift';
    public const PLANE = 'plane';

    public function __construct(
        public ?float $shiftE = null,
        public ?float $shiftN = null,
        public ?float $rotationDegrees = null,
        public ?float $scale = null,
        public string $vertical = self::SHIFT,
    ) {
    }

    /** Horizontal parameters fitted. */
    public function fitted(): int
    {
        return (null === $this->shiftE ? 1 : 0) + (null === $this->shiftN ? 1 : 0)
            + (null === $this->rotationDegrees ? 1 : 0) + (null === $this->scale ? 1 : 0);
    }

    public function verticalFitted(): int
    {
        return match ($this->vertical) {
            self::SHIFT => 1, self::PLANE => 3, default => 0,
        };
    }
}
