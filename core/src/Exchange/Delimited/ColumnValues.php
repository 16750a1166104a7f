<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** What the cells of one column are like, from a sample spread over the whole file. Figures as they stand, without a unit. */
final readonly class ColumnValues
{
    private const SAMPLE = 500;
    private const MOSTLY = 0.9;

    /**
     * @param int         $filled   cells of the sample that are not empty
     * @param list<float> $numbers  sorted
     * @param int         $distinct different cells
     * @param list<string> $cells   of the sample, filled ones
     */
    private function __construct(
        public int $filled,
        public array $numbers,
        public int $distinct,
        public array $cells,
    ) {
    }

    public static function of(DelimitedTable $table, int $column): self
    {
        $step = max(1, intdiv(\count($table->rows), self::SAMPLE));
        $cells = $numbers = [];
        for ($i = 0, $count = \count($table->rows); $i < $count; $i += $step) {
            $cell = $table->rows[$i][$column] ?? '';
            if ('' === $cell) {
                continue;
            }
            $cells[] = $cell;
            $plain = 1 === preg_match('/^[+-]?\d+,\d+$/', $cell) ? strtr($cell, ',', '.') : $cell;
            if (is_numeric($plain) && is_finite((float) $plain)) {
                $numbers[] = (float) $plain;
            }
        }
        sort($numbers);

        return new self(\count($cells), $numbers, \count(array_unique($cells)), $cells);
    }

    public function isNumeric(): bool
    {
        return $this->filled > 0 && \count($this->numbers) >= self::MOSTLY * $this->filled;
    }

    /** Whether it holds words or names rather than figures. */
    public function isText(): bool
    {
        return $this->filled > 0 && \count($this->numbers) <= (1.0 - self::MOSTLY) * $this->filled;
    }

    public function median(): ?float
    {
        return $this->numbers[intdiv(\count($this->numbers), 2)] ?? null;
    }

    public function least(): ?float
    {
        return $this->numbers[0] ?? null;
    }

    public function greatest(): ?float
    {
        return [] === $this->numbers ? null : $this->numbers[\count($this->numbers) - 1];
    }

    public function range(): float
    {
        return [] === $this->numbers ? 0.0 : $this->greatest() - $this->least();
    }

    /** Whether nearly every cell is another one, as names of points are. */
    public function isDistinct(): bool
    {
        return $this->filled > 0 && $this->distinct >= self::MOSTLY * $this->filled;
    }

    /** How often a cell differs from the one before it. */
    public function changes(): int
    {
        $changes = 0;
        for ($i = 1, $count = \count($this->cells); $i < $count; ++$i) {
            $changes += (int) ($this->cells[$i] !== $this->cells[$i - 1]);
        }

        return $changes;
    }

    public function isWhole(): bool
    {
        foreach ($this->numbers as $v) {
            if (floor($v) !== $v) {
                return false;
            }
        }

        return [] !== $this->numbers;
    }

    /** Degrees, minutes and seconds apart: 12 34 56.7 or 12°34'56". */
    public function looksSexagesimal(): bool
    {
        return [] !== $this->cells
            && 1 === preg_match('/^\s*[-−]?\d+(?:[\s°:]+\d+[\s\':′]+|[°º]\s*)\d/u', $this->cells[0]);
    }

    /**
     * Whether every fraction reads as minutes and seconds: 12.3456 for 12°34'56". By chance 9 of 25 fractions do, so that six
     * agreeing by chance are one case in four hundred.
     */
    public function looksPacked(): bool
    {
        $seen = 0;
        foreach ($this->cells as $cell) {
            if (1 !== preg_match('/^[+-]?\d+[.,](\d{2})(\d{2})/', $cell, $m)) {
                continue;
            }
            if ((int) $m[1] >= 60 || (int) $m[2] >= 60) {
                return false;
            }
            ++$seen;
        }

        return $seen >= 6;
    }
}
