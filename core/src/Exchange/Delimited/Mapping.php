<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\Fault\UnusableInput;
use Mensura\Quantity\Unit;

/** Which column means what, in which unit. Columns by field key; a unit is missing where it must still be asked. */
final readonly class Mapping
{
    /**
     * @param array<string, int>      $columns
     * @param array<string, ?Unit>    $units
     * @param array<string, Evidence> $evidence  how sure each column is
     * @param bool                    $asksOrder whether it must be asked which plan column is the easting
     */
    public function __construct(
        public FileKind $kind,
        public array $columns,
        public array $units,
        public array $evidence = [],
        public bool $asksOrder = false,
    ) {
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

        return null === $column ? null : FileKind::heightsSaid(Heading::of($table->header[$column])->word);
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

    /** @return list<int> columns that mean nothing here */
    public function unused(DelimitedTable $table): array
    {
        return array_values(array_diff(array_keys($table->header), $this->columns));
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
        $columns = $units = $evidence = [];
        foreach ($kind->fields() as $field) {
            $column = $data['columns'][$field->key] ?? null;
            if (null === $column) {
                continue;
            }
            if (!\is_int($column) || $column < 0 || $column >= \count($table->header)) {
                throw new UnusableInput('/columns/'.$field->key, 'is not a column of this file');
            }
            $columns[$field->key] = $column;
            $evidence[$field->key] = new Evidence(Evidence::CHOSEN, isset($data['memory']) ? 'as it was remembered' : 'chosen by hand');
            if ('text' !== $field->quantity) {
                $given = $data['units'][$field->key] ?? null;
                $unit = \is_string($given) ? Unit::tryFrom($given) : null;
                if (null !== $given && (null === $unit || !\in_array($unit, Unit::of($field->quantity), true))) {
                    throw new UnusableInput(
                        '/units/'.$field->key,
                        \sprintf('"%s" is not a unit of %s', \is_scalar($given) ? $given : '?', $field->quantity),
                    );
                }
                // A column that was chosen without a unit takes the one its heading states.
                $units[$field->key] = $unit ?? Guess::unit($field, $table, $column);
            }
        }

        $mapping = new self($kind, $columns, $units, $evidence);
        if ($mapping->isGeographic() && (isset($columns['e']) || isset($columns['n']))) {
            throw new UnusableInput(
                '/columns',
                'a place is an easting and a northing, or a latitude and a longitude; choose columns for one of the two',
            );
        }

        return $mapping;
    }
}
