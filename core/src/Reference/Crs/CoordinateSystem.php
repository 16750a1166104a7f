<?php

declare(strict_types=1);

namespace Mensura\Reference\Crs;

/** A horizontal system, alone or with a vertical one. */
final readonly class CoordinateSystem
{
    public function __construct(
        public HorizontalSystem $horizontal,
        public ?VerticalSystem $vertical = null,
        private ?string $compoundName = null,
        private ?string $compoundCode = null,
    ) {
    }

    public function name(): string
    {
        return $this->compoundName ?? $this->horizontal->name.(null === $this->vertical ? '' : ' + '.$this->vertical->name);
    }

    public function code(): ?string
    {
        if (null !== $this->compoundCode) {
            return $this->compoundCode;
        }
        if (null === $this->vertical) {
            return $this->horizontal->code;
        }

        return null !== $this->horizontal->code
            && null !== $this->vertical->code ? $this->horizontal->code.'+'.$this->vertical->code : null;
    }

    /** Whether the third coordinate is part of the system, as ellipsoidal or as gravity-related height. */
    public function hasHeight(): bool
    {
        return null !== $this->vertical || 3 === $this->horizontal->dimension;
    }
}
