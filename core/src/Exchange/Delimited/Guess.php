<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\Quantity\Unit;

/** Reads the meaning of a file's columns from its headings, held against its values; without headings, from the values alone. */
final class Guess
{
    private const LEAST_SCORE = 0.3;

    /** @var array<int, ColumnValues> */
    private array $values = [];

    private function __construct(private readonly DelimitedTable $table)
    {
    }

    /** The kind whose required columns are best covered by the headings, and the columns it matches. */
    public static function best(DelimitedTable $table): Mapping
    {
        if (!$table->hasHeader) {
            $book = self::of(FileKind::TotalStation, $table);

            return isset($book->columns['zenith']) ? $book : self::of(FileKind::Points, $table);
        }
        $best = null;
        $bestScore = -1.0;
        foreach (FileKind::tables() as $kind) {
            $mapping = self::of($kind, $table);
            $required = array_filter($kind->fields(), $mapping->requires(...));
            $covered = array_filter($required, static fn (Field $f): bool => isset($mapping->columns[$f->key]));
            $doubtful = array_filter(
                $covered, static fn (Field $f): bool => Evidence::DOUBTFUL === ($mapping->evidence[$f->key] ?? null)?->level,
            );
            $score = \count($covered) / \count($required) + 0.02 * \count($mapping->columns) - 0.03 * \count($doubtful);
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

        // Headings that say nothing of what is needed are as good as none.
        return $bestScore < self::LEAST_SCORE ? (new self($table))->byValues(FileKind::Points) : $best;
    }

    public static function of(FileKind $kind, DelimitedTable $table): Mapping
    {
        $guess = new self($table);

        return match (true) {
            $table->hasHeader || FileKind::Vectors === $kind => $guess->byHeadings($kind),
            FileKind::TotalStation === $kind => $guess->book(),
            default => $guess->byValues($kind),
        };
    }

    /** A book without headings; no column where the values do not look like one. */
    private function book(): Mapping
    {
        [$columns, $why] = HeadlessBook::columns(array_map($this->valuesOf(...), array_keys($this->table->header))) ?? [[], []];

        return $this->mapping(FileKind::TotalStation, $columns, $why, false, false);
    }

    private function byHeadings(FileKind $kind): Mapping
    {
        $headings = array_map(Heading::of(...), $this->table->header);
        $columns = $taken = [];
        foreach ($this->table->hasHeader ? $kind->fields() : [] as $field) {
            $bestRank = \PHP_INT_MAX;
            foreach ($headings as $i => $heading) {
                $rank = array_search($heading->word, $field->headings, true);
                if (false !== $rank && $rank < $bestRank && !isset($taken[$i])) {
                    $columns[$field->key] = $i;
                    $bestRank = $rank;
                }
            }
            if (isset($columns[$field->key])) {
                $taken[$columns[$field->key]] = true;
            }
        }
        if (isset($columns['e'], $columns['n'])) {
            unset($columns['lat'], $columns['lon']);
        } elseif (isset($columns['lat'], $columns['lon'])) {
            unset($columns['e'], $columns['n']);
        }
        if (isset($columns['distance'])) {
            unset($columns['horizontal']); // the same sight twice would be weighted twice
        }
        $asksOrder = false;
        $isXy = isset($columns['e'], $columns['n']) && \in_array($headings[$columns['e']]->word, Headings::X, true)
            && \in_array($headings[$columns['n']]->word, Headings::Y, true);
        if ($isXy) {
            $isFirst = PlanOrder::isFirstEasting($this->valuesOf($columns['e']), $this->valuesOf($columns['n']));
            $asksOrder = null === $isFirst;
            if (false === $isFirst) {
                [$columns['e'], $columns['n']] = [$columns['n'], $columns['e']];
            }
        }

        return $this->mapping($kind, $columns, [], $asksOrder, $isXy && !$asksOrder);
    }

    private function byValues(FileKind $kind): Mapping
    {
        $values = array_map($this->valuesOf(...), array_keys($this->table->header));
        [$columns, $why] = Headless::points($values);
        $asksOrder = isset($columns['e'], $columns['n'])
            && null === PlanOrder::isFirstEasting($values[$columns['e']], $values[$columns['n']]);

        return $this->mapping($kind, $columns, $why, $asksOrder, false);
    }

    /**
     * @param array<string, int>    $columns
     * @param array<string, string> $why     of columns told by their values
     * @param bool                  $isOrdered whether X and Y were told apart by their size
     */
    private function mapping(FileKind $kind, array $columns, array $why, bool $asksOrder, bool $isOrdered): Mapping
    {
        $units = $evidence = [];
        foreach ($kind->fields() as $field) {
            $i = $columns[$field->key] ?? null;
            if (null === $i) {
                continue;
            }
            if ('text' !== $field->quantity) {
                $units[$field->key] = self::unit($field, $this->table, $i);
            }
            $evidence[$field->key] = $this->evidence($field, $i, $units[$field->key] ?? null, $why[$field->key] ?? null);
            if ('e' === $field->key || 'n' === $field->key) {
                $evidence[$field->key] = match (true) {
                    $asksOrder => new Evidence(Evidence::DOUBTFUL, 'neither heading nor values say which of the two is the easting'),
                    $isOrdered => new Evidence(Evidence::LIKELY, 'X and Y told apart: eastings of a grid have six digits, northings seven'),
                    default => $evidence[$field->key],
                };
            }
        }

        return new Mapping($kind, $columns, $units, $evidence, $asksOrder);
    }

    private function evidence(Field $field, int $column, ?Unit $unit, ?string $why): Evidence
    {
        $against = Plausibility::against($field, $this->valuesOf($column), $unit);
        if (null !== $against) {
            return new Evidence(Evidence::DOUBTFUL, null === $why ? 'so its heading says, but '.$against : $why.', but '.$against);
        }
        $word = Heading::of($this->table->header[$column])->word;

        return match (true) {
            null !== $why => new Evidence(Evidence::LIKELY, $why),
            \in_array($word, Headings::WEAK, true) => new Evidence(Evidence::LIKELY, 'so its heading says; its values may be that'),
            default => new Evidence(Evidence::SURE, 'so its heading says, and its values agree'),
        };
    }

    /** The unit that stands in the heading, or shows in the form of the cells: degrees, minutes and seconds. */
    public static function unit(Field $field, DelimitedTable $table, int $column): ?Unit
    {
        $unit = $table->hasHeader ? Heading::of($table->header[$column])->unit : null;
        if (null !== $unit && \in_array($unit, Unit::of($field->quantity), true)) {
            return $unit;
        }

        return 'angle' === $field->quantity && ColumnValues::of($table, $column)->looksSexagesimal() ? Unit::DegreeMinuteSecond : null;
    }

    private function valuesOf(int $column): ColumnValues
    {
        return $this->values[$column] ??= ColumnValues::of($this->table, $column);
    }
}
