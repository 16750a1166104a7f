<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Store\SqlitePragmas;
use Doctrine\DBAL\Connection;

/**
 * The only way operations write: every row's image before and after is recorded, which is all that undo needs.
 */
final class Journal
{
    /** Tables operations may write. */
    private const TABLES = ['project', 'survey_file', 'point', 'observation', 'surface', 'result', 'custom_system', 'grid_file', 'localization'];

    /** @var list<array{table: string, id: int, before: ?array<string, mixed>, after: ?array<string, mixed>}> */
    private array $changes = [];

    public function __construct(
        private readonly Connection $connection,
        public readonly string $authorName,
        public readonly \DateTimeImmutable $at,
    ) {
    }

    /** @param array<string, mixed> $row */
    public function insert(string $table, array $row): int
    {
        $this->guard($table);
        $this->put($table, $row);
        $id = (int) $this->connection->lastInsertId();
        $this->changes[] = ['table' => $table, 'id' => $id, 'before' => null, 'after' => $row];

        return $id;
    }

    /** @param array<string, mixed> $fields */
    public function update(string $table, int $id, array $fields): void
    {
        $this->guard($table);
        $columns = implode(', ', array_keys($fields));
        $before = $this->connection->fetchAssociative("SELECT $columns FROM $table WHERE id = ?", [$id]);
        if (false === $before) {
            throw new \LogicException("No row $id in $table.");
        }
        if ($before == $fields) {
            return;
        }
        $set = array_map(static fn (string $column, mixed $value): string => $column.' = '.self::place($value), array_keys($fields), $fields);
        $this->connection->executeStatement("UPDATE $table SET ".implode(', ', $set).' WHERE id = ?', [...array_values(array_map(self::bound(...), $fields)), $id]);
        $this->changes[] = ['table' => $table, 'id' => $id, 'before' => $before, 'after' => $fields];
    }

    public function delete(string $table, int $id): void
    {
        $this->guard($table);
        $before = $this->connection->fetchAssociative("SELECT * FROM $table WHERE id = ?", [$id]);
        if (false === $before) {
            throw new \LogicException("No row $id in $table.");
        }
        unset($before['id']);
        $this->connection->delete($table, ['id' => $id]);
        $this->changes[] = ['table' => $table, 'id' => $id, 'before' => $before, 'after' => null];
    }

    /**
     * Takes a recorded change back.
     *
     * @param array{table: string, id: int, before: ?array<string, mixed>, after: ?array<string, mixed>} $change
     *
     * @throws LaterChange when the row no longer is what the change left
     */
    public function reverse(array $change): void
    {
        ['table' => $table, 'id' => $id, 'before' => $before, 'after' => $after] = $change;
        $this->guard($table);
        if (null !== $after) {
            $present = $this->connection->fetchAssociative("SELECT * FROM $table WHERE id = ?", [$id]);
            if (false === $present) {
                throw new LaterChange($table, $id);
            }
            foreach ($after as $column => $value) {
                if ($present[$column] != $value) {
                    throw new LaterChange($table, $id);
                }
            }
        }
        if (null === $before) {
            $this->delete($table, $id);
        } elseif (null === $after) {
            if (false !== $this->connection->fetchOne("SELECT 1 FROM $table WHERE id = ?", [$id])) {
                throw new LaterChange($table, $id);
            }
            $this->put($table, ['id' => $id] + $before);
            $this->changes[] = ['table' => $table, 'id' => $id, 'before' => null, 'after' => $before];
        } else {
            $this->update($table, $id, $before);
        }
    }

    /** @return list<array{table: string, id: int, before: ?array<string, mixed>, after: ?array<string, mixed>}> */
    public function changes(): array
    {
        return $this->changes;
    }

    /** @param array<string, mixed> $row */
    private function put(string $table, array $row): void
    {
        $this->connection->executeStatement("INSERT INTO $table (".implode(', ', array_keys($row)).') VALUES ('.implode(', ', array_map(self::place(...), $row)).')', array_values(array_map(self::bound(...), $row)));
    }

    /** Text would lose the last bit of a float on its way into SQLite; a value that came back otherwise could not be undone. */
    private static function place(mixed $value): string
    {
        return \is_float($value) ? SqlitePragmas::EXACT.'(?)' : '?';
    }

    private static function bound(mixed $value): mixed
    {
        return \is_float($value) ? json_encode($value, \JSON_THROW_ON_ERROR) : $value;
    }

    private function guard(string $table): void
    {
        if (!\in_array($table, self::TABLES, true)) {
            throw new \LogicException("Operations do not write $table.");
        }
    }
}
