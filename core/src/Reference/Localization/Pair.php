<?php

declare(strict_types=1);

namespace Mensura\Reference\Localization;

/** One mark known on both sides: local and grid coordinates in metres; heights may be missing. */
final readonly class Pair
{
    public function __construct(
        public string $name,
        public float $localE,
        public float $localN,
        public ?float $localH,
        public float $gridE,
        public float $gridN,
        public ?float $gridH,
        public bool $horizontal = true,
        public bool $vertical = true,
    ) {
    }

    public function hasHeights(): bool
    {
        return $this->vertical && null !== $this->localH && null !== $this->gridH;
    }
}
