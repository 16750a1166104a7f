<?php

declare(strict_types=1);

namespace App\Ledger;

/**
 * Rows of one table as they were before and after a change: the same columns for all of them. Before is null for rows
 * that were inserted, after for rows that were deleted. Values as the database holds them.
 */
final readonly class Images
{
    /**
     * @param list<string>                                          $columns
     * @param list<array{int, ?list<mixed>, ?list<mixed>}> $rows id, before, after
     */
    public function __construct(public string $table, public array $columns, public array $rows)
    {
    }

    /** The same rows seen from the other side, last first. */
    public function reversed(): self
    {
        return new self(
            $this->table,
            $this->columns,
            array_map(static fn (array $r): array => [$r[0], $r[2], $r[1]], array_reverse($this->rows)),
        );
    }

    public function toLine(): string
    {
        return json_encode([$this->table, $this->columns, $this->rows], \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)."\n";
    }

    public static function fromLine(string $line): self
    {
        return new self(...json_decode($line, true, 32, \JSON_THROW_ON_ERROR));
    }
}
