<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Store\ExactFloat;
use App\Store\SqlitePragmas;
use App\Store\Versioned;
use Doctrine\DBAL\Connection;

/**
 * Writes rows of one table by the thousand, for the bulk methods of repositories, and hands their images to the journal:
 * one prepared statement each way, where the unit of work would hold an object, a copy of its values and a set of changes
 * for every row.
 */
final class BulkRows
{
    private readonly \PDO $pdo;

    /** @var list<array{int, ?list<mixed>, ?list<mixed>}> */
    private array $images = [];

    private ?\PDOStatement $insert = null;
    private ?\PDOStatement $update = null;

    /** @var list<int> columns that hold floats */
    private readonly array $exact;

    /**
     * @param list<string> $columns the same for every row
     * @param list<string> $floats  those of them that hold floats
     * @param bool         $isVersioned whether rows carry the number of the entry that changed them
     */
    public function __construct(
        Connection $connection,
        private readonly Journal $journal,
        private readonly string $table,
        private readonly array $columns,
        array $floats,
        private readonly bool $isVersioned = true,
    ) {
        $pdo = $connection->getNativeConnection();
        \assert($pdo instanceof \PDO);
        $this->pdo = $pdo;
        $this->exact = array_keys(array_intersect($columns, $floats));
    }

    /** @param list<mixed> $values in the order of the columns */
    public function insert(array $values): void
    {
        $this->insert ??= $this->pdo->prepare(\sprintf(
            'INSERT INTO %s (%s) VALUES (%s)', $this->table, implode(', ', $this->written()), implode(', ', $this->places()),
        ));
        $this->insert->execute($this->bound($values));
        $this->image((int) $this->pdo->lastInsertId(), null, $values);
    }

    /**
     * @param list<mixed> $before in the order of the columns
     * @param list<mixed> $after
     *
     * @return bool whether anything differs
     */
    public function update(int $id, array $before, array $after): bool
    {
        if ($before === $after) {
            return false;
        }
        $this->update ??= $this->pdo->prepare(\sprintf('UPDATE %s SET %s WHERE id = ?', $this->table, implode(', ', array_map(
            static fn (string $c, string $p): string => "$c = $p", $this->written(), $this->places(),
        ))));
        $this->update->execute([...$this->bound($after), $id]);
        $this->image($id, $before, $after);

        return true;
    }

    /** The last images go to the journal. */
    public function finish(): void
    {
        if ([] !== $this->images) {
            $this->journal->record(new Images($this->table, $this->columns, $this->images));
            $this->images = [];
        }
    }

    /**
     * @param ?list<mixed> $before
     * @param ?list<mixed> $after
     */
    private function image(int $id, ?array $before, ?array $after): void
    {
        $this->images[] = [$id, $before, $after];
        if (\count($this->images) >= Journal::ROWS_PER_LINE) {
            $this->finish();
        }
    }

    /** @return list<string> */
    private function written(): array
    {
        return $this->isVersioned ? [...$this->columns, Versioned::COLUMN] : $this->columns;
    }

    /** @return array<int, string> */
    private function places(): array
    {
        $places = array_fill(0, \count($this->written()), '?');
        foreach ($this->exact as $i) {
            $places[$i] = SqlitePragmas::EXACT.'(?)';
        }

        return $places;
    }

    /**
     * @param list<mixed> $values
     *
     * @return array<int, mixed>
     */
    private function bound(array $values): array
    {
        foreach ($this->exact as $i) {
            $values[$i] = ExactFloat::text($values[$i]);
        }
        if ($this->isVersioned) {
            $values[] = $this->journal->seq;
        }

        return $values;
    }
}
