<?php

declare(strict_types=1);

namespace App\Transfer;

/** What becomes of a row on its way into an archive or out of one. */
final readonly class RowChange
{
    /**
     * @param \Closure(string, int): int $numbers the other number, by table and number
     * @param list<ResultLinks>          $before  while it still has its own numbers
     * @param list<ResultLinks>          $after   once it has the others
     */
    public function __construct(
        private Renumbering $renumbering, private \Closure $numbers, private array $before = [], private array $after = [],
    ) {
    }

    public function with(ResultLinks $after): self
    {
        return new self($this->renumbering, $this->numbers, $this->before, [...$this->after, $after]);
    }

    public function number(string $table, int $number): int
    {
        return ($this->numbers)($table, $number);
    }

    /**
     * @param list<string> $columns
     * @param list<mixed>  $values
     *
     * @return list<mixed>
     */
    public function row(string $table, array $columns, array $values): array
    {
        foreach ($this->before as $links) {
            $values = $links->row($table, $columns, $values);
        }
        $values = $this->renumbering->row($table, $columns, $values, $this->numbers);
        foreach ($this->after as $links) {
            $values = $links->row($table, $columns, $values);
        }

        return $values;
    }
}
