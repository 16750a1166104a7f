<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features;

/** The features of a file, and what its coordinates mean. */
final class FeatureSet
{
    /** Names of the property that holds what a thing is called, the likeliest first. */
    private const NAMES = ['name', 'id', 'point', 'number', 'no', 'nr', 'label', 'title', 'mark', 'station', 'punkt', 'pt', 'bezeichnung'];

    /** Names of the property that holds a code. */
    private const CODES = ['code', 'feature', 'type', 'class', 'kode', 'codigo', 'desc', 'description'];

    private const METRES = ['foot' => 0.3048, 'US survey foot' => 1200.0 / 3937.0, 'millimetre' => 0.001];

    /** @var list<Feature> */
    public array $features = [];

    /** @var ?string "EPSG:n" */
    public ?string $crs = null;

    /** @var ?string metre, foot, US survey foot, millimetre or degree */
    public ?string $unit = null;

    /** @var ?int when the file they come of was written last, Unix seconds: the same file then gives the same bytes; null for now */
    public ?int $at = null;

    /** A date as gmdate writes it, of what formats want one for. */
    public function dated(string $format): string
    {
        return gmdate($format, $this->at ?? time());
    }

    /** @return list<string> names of the properties, in the order they come up */
    public function properties(): array
    {
        $names = [];
        foreach ($this->features as $f) {
            // Most say the same as the one before.
            if ([] !== array_diff_key($f->properties, $names)) {
                $names += $f->properties;
            }
        }

        return array_map(strval(...), array_keys($names));
    }

    /** @return list<string> names of the layers, in the order they come up */
    public function layers(): array
    {
        $names = [];
        foreach ($this->features as $f) {
            $names[$f->layer] = true;
        }

        return array_map(strval(...), array_keys($names));
    }

    /** The property that names things; null where none does. */
    public function naming(): ?string
    {
        return $this->first(self::NAMES);
    }

    public function coding(): ?string
    {
        return $this->first(self::CODES);
    }

    public function hasHeights(): bool
    {
        foreach ($this->features as $f) {
            if ($f->hasHeights()) {
                return true;
            }
        }

        return false;
    }

    public function isGeographic(): bool
    {
        return 'degree' === $this->unit;
    }

    /** Metres of a unit of its coordinates; 1 where they are degrees, or no unit is known. */
    public function metre(): float
    {
        return self::METRES[$this->unit ?? ''] ?? 1.0;
    }

    /** @param list<string> $wanted */
    private function first(array $wanted): ?string
    {
        $of = [];
        foreach ($this->properties() as $name) {
            $of[strtolower($name)] ??= $name;
        }
        foreach ($wanted as $word) {
            if (isset($of[$word])) {
                return (string) $of[$word];
            }
        }

        return null;
    }
}
