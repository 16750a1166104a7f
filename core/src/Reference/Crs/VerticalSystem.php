<?php

declare(strict_types=1);

namespace Mensura\Reference\Crs;

/** A gravity-related height (or depth) system. */
final readonly class VerticalSystem
{
    /**
     * @param float   $unit       metres per unit
     * @param bool    $down       true for depths
     * @param ?string $geoidGrid  geoid file the definition itself names
     */
    public function __construct(
        public ?string $code,
        public string $name,
        public ?string $datum,
        public string $datumName,
        public float $unit = 1.0,
        public string $unitName = 'metre',
        public bool $down = false,
        public ?Area $area = null,
        public bool $deprecated = false,
        public ?string $successor = null,
        public ?string $geoidGrid = null,
    ) {
    }

    public function label(): string
    {
        return null === $this->code ? $this->name : $this->code.' '.$this->name;
    }

    public function sameDatum(self $other): bool
    {
        return null !== $this->datum
            && null !== $other->datum ? $this->datum === $other->datum : Datum::key($this->datumName) === Datum::key($other->datumName);
    }
}
