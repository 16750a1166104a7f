<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\Fault\UnusableInput;
use Mensura\Quantity\Unit;

/** Which column means what, in which unit. Columns by field key; a unit is missing where it must still be asked. */
final readonly class Mapping
{
    /**
     * @param array<string, int>   $columns
     * @param array<string, ?Unit> $units
     */
    public function __construct(public FileKind $kind, public array $columns, public array $units)
    {
    }

    /** The kind whose required columns are best covered by the headings, and the columns it matches. */
    public static function guess(DelimitedTable $table): self
    {
        $best = null;
        $bestScore = -1.0;
        foreach (FileKind::cases() as $kind) {
            $mapping = self::forKind($kind, $table);
            $fields = $kind->fields();
            $required = array_filter($fields, $mapping->requires(...));
            $covered = array_filter($required, static fn (Field $f): bool => isset($mapping->columns[$f->key]));
            $score = \count($covered) / \count($required) + 0.02 * \count($mapping->columns);
            // Coordinates with a statement about holding or precision are control; without, surveyed points.
            if (FileKind::Control === $kind && [] === array_intersect(['held', 'sd_e', 'sd_n', 'sd_h'], array_keys($mapping->columns))) {
                $score -= 0.1;
            }
            if ($score > $bestScore) {
                $best = $mapping;
                $bestScore = $score;
            }
        }
        \assert(null !== $best);

        return $best;
    }

    public static function forKind(FileKind $kind, DelimitedTable $table): self
    {
        $columns = $units = [];
        $taken = [];
        foreach ($kind->fields() as $field) {
            $bestRank = \PHP_INT_MAX;
            foreach ($table->header as $i => $heading) {
                [$word] = self::heading($heading);
                $rank = array_search($word, $field->headings, true);
                if (false !== $rank && $rank < $bestRank && !isset($taken[$i])) {
                    $columns[$field->key] = $i;
                    $bestRank = $rank;
                }
            }
            if (isset($columns[$field->key])) {
                $i = $columns[$field->key];
                $taken[$i] = true;
                if ('text' !== $field->quantity) {
                    $unit = self::heading($table->header[$i])[1];
                    $unit = null !== $unit && \in_array($unit, Unit::of($field->quantity), true) ? $unit : null;
                    $units[$field->key] = $unit ?? self::unitFromForm($field, $table, $i);
                }
            }
        }

        if (isset($columns['e'], $columns['n'])) {
            unset($columns['lat'], $columns['lon'], $units['lat'], $units['lon']);
        } elseif (isset($columns['lat'], $columns['lon'])) {
            unset($columns['e'], $columns['n'], $units['e'], $units['n']);
        }

        return new self($kind, $columns, $units);
    }

    /** Whether places are latitudes and longitudes, not eastings and northings. */
    public function isGeographic(): bool
    {
        return isset($this->columns['lat']) || isset($this->columns['lon']);
    }

    public function requires(Field $field): bool
    {
        return match ($field->key) {
            'lat', 'lon' => $this->isGeographic(),
            'e', 'n' => !$this->isGeographic(),
            default => $field->required,
        };
    }

    /** "ellipsoidal" or "geoid" when the heading of the height column says which; null when it must be asked. */
    public function heightsSaid(DelimitedTable $table): ?string
    {
        $column = $this->columns['h'] ?? null;

        return null === $column ? null : FileKind::heightsSaid(self::heading($table->header[$column])[0]);
    }

    /** @return array{string, ?Unit} the heading without its unit, letters and digits only; the unit */
    private static function heading(string $heading): array
    {
        $unit = null;
        if (1 === preg_match('/^(.*?)\s*[\[(]([^\])]+)[\])]\s*$/u', $heading, $match)) {
            $unit = Unit::fromHeader($match[2]);
            $heading = $match[1];
        } elseif (1 === preg_match('/^(.+)_(m|mm|cm|ft|ftus|deg|dms|gon|m2|mm2)$/i', $heading, $match)) {
            $unit = Unit::fromHeader($match[2]);
            $heading = $match[1];
        }

        return [preg_replace('/[^a-z0-9]/', '', strtolower($heading)) ?? '', $unit];
    }

    /** Degrees, minutes and seconds show by their form; everything else must be asked. */
    private static function unitFromForm(Field $field, DelimitedTable $table, int $column): ?Unit
    {
        if ('angle' !== $field->quantity) {
            return null;
        }
        $cell = $table->rows[0][$column] ?? '';

        return 1 === preg_match('/^\s*[-−]?\d+(?:[\s°:]+\d+[\s\':′]+|[°º]\s*)\d/u', $cell) ? Unit::DegreeMinuteSecond : null;
    }

    /** @return list<Field> fields whose unit must be asked */
    public function questions(): array
    {
        return array_values(array_filter(
            $this->kind->fields(),
            fn (Field $f): bool => 'text' !== $f->quantity && isset($this->columns[$f->key]) && null === ($this->units[$f->key] ?? null),
        ));
    }

    /** @return list<Field> required fields without a column */
    public function missing(): array
    {
        return array_values(array_filter(
            $this->kind->fields(),
            fn (Field $f): bool => $this->requires($f) && !isset($this->columns[$f->key]),
        ));
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind->value,
            'columns' => $this->columns,
            'units' => array_map(static fn (?Unit $u): ?string => $u?->value, $this->units),
        ];
    }

    /**
     * @param array<string, mixed> $data
     *
     * @throws UnusableInput
     */
    public static function fromArray(array $data, DelimitedTable $table): self
    {
        $kind = FileKind::tryFrom(\is_string($data['kind'] ?? null) ? $data['kind'] : '')
            ?? throw new UnusableInput('/kind', 'is not a kind of file');
        $columns = $units = [];
        foreach ($kind->fields() as $field) {
            $column = $data['columns'][$field->key] ?? null;
            if (null === $column) {
                continue;
            }
            if (!\is_int($column) || $column < 0 || $column >= \count($table->header)) {
                throw new UnusableInput('/columns/'.$field->key, 'is not a column of this file');
            }
            $columns[$field->key] = $column;
            if ('text' !== $field->quantity) {
                $given = $data['units'][$field->key] ?? null;
                $unit = \is_string($given) ? Unit::tryFrom($given) : null;
                if (null !== $given && (null === $unit || !\in_array($unit, Unit::of($field->quantity), true))) {
                    throw new UnusableInput(
                        '/units/'.$field->key,
                        \sprintf('"%s" is not a unit of %s', \is_scalar($given) ? $given : '?', $field->quantity),
                    );
                }
                $units[$field->key] = $unit;
            }
        }

        $mapping = new self($kind, $columns, $units);
        if ($mapping->isGeographic() && (isset($columns['e']) || isset($columns['n']))) {
            throw new UnusableInput(
                '/columns',
                'a place is an easting and a northing, or a latitude and a longitude; choose columns for one of the two',
            );
        }

        return $mapping;
    }
}
