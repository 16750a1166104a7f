<?php

declare(strict_types=1);

namespace App\Ledger;

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
        $this->connection->insert($table, self::bound($row));
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
        $this->connection->update($table, self::bound($fields), ['id' => $id]);
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
            $this->connection->insert($table, self::bound(['id' => $id] + $before));
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

    /**
     * Floats in all their digits: bound as they are they would be cut to fourteen, and no longer be what was recorded.
     *
     * @param array<string, mixed> $row
     *
     * @return array<string, mixed>
     */
    private static function bound(array $row): array
    {
        return array_map(static fn (mixed $v): mixed => \is_float($v) ? json_encode($v, \JSON_THROW_ON_ERROR) : $v, $row);
    }

    private function guard(string $table): void
    {
        if (!\in_array($table, self::TABLES, true)) {
            throw new \LogicException("Operations do not write $table.");
        }
    }
}
