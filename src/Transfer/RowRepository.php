<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Store\ExactFloat;
use App\Store\SqlitePragmas;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;

/**
 * Rows of the tables of a project as the database holds them. In SQL because a project has them by the hundred thousand, of
 * every table alike.
 */
final class RowRepository
{
    private readonly Connection $connection;

    public function __construct(EntityManagerInterface $entities, private readonly ArchivedTables $tables)
    {
        $this->connection = $entities->getConnection();
    }

    /**
     * @param list<string> $columns
     *
     * @return iterable<int, list<mixed>> values in the order of the columns, by the row's number, in order
     */
    public function of(string $table, array $columns, int $project): iterable
    {
        $of = ArchivedTables::PROJECT === $table ? 'id' : 'project_id';
        $sql = \sprintf('SELECT id, %s FROM %s WHERE %s = ? ORDER BY id', implode(', ', $columns), $table, $of);
        foreach ($this->connection->iterateNumeric($sql, [$project]) as $row) {
            yield (int) array_shift($row) => $row;
        }
    }

    /** The highest number a table has ever given. */
    public function lastNumber(string $table): int
    {
        $given = $this->connection->fetchOne('SELECT seq FROM sqlite_sequence WHERE name = ?', [$table]);

        return max((int) $given, (int) $this->connection->fetchOne("SELECT MAX(id) FROM $table"));
    }

    /** Numbers up to this one are given: rows that were removed may come back by undoing. */
    public function reserve(string $table, int $last): void
    {
        if (0 === $this->connection->executeStatement('UPDATE sqlite_sequence SET seq = MAX(seq, ?) WHERE name = ?', [$last, $table])) {
            $this->connection->executeStatement('INSERT INTO sqlite_sequence (name, seq) VALUES (?, ?)', [$table, $last]);
        }
    }

    /**
     * @param list<string>               $columns
     * @param iterable<int, list<mixed>> $rows    by number
     */
    public function insert(string $table, array $columns, iterable $rows): void
    {
        $places = implode(', ', [...$this->places($table, $columns), '?']);
        $statement = $this->connection->getNativeConnection();
        \assert($statement instanceof \PDO);
        $statement = $statement->prepare(\sprintf('INSERT INTO %s (%s, id) VALUES (%s)', $table, implode(', ', $columns), $places));
        foreach ($rows as $id => $values) {
            $statement->execute([...$this->bound($table, $columns, $values), $id]);
        }
    }

    /**
     * @param list<string> $columns
     * @param list<mixed>  $values
     */
    public function update(string $table, array $columns, int $id, array $values): void
    {
        $sets = array_map(static fn (string $c, string $p): string => "$c = $p", $columns, $this->places($table, $columns));
        $sql = \sprintf('UPDATE %s SET %s WHERE id = ?', $table, implode(', ', $sets));
        $this->connection->executeStatement($sql, [...$this->bound($table, $columns, $values), $id]);
    }

    /**
     * @param list<string> $columns
     *
     * @return list<string>
     */
    private function places(string $table, array $columns): array
    {
        $types = $this->tables->types($table);

        return array_map(static fn (string $c): string => 'real' === $types[$c][0] ? SqlitePragmas::EXACT.'(?)' : '?', $columns);
    }

    /**
     * @param list<string> $columns
     * @param list<mixed>  $values
     *
     * @return list<mixed>
     */
    private function bound(string $table, array $columns, array $values): array
    {
        $types = $this->tables->types($table);
        foreach ($columns as $i => $column) {
            $values[$i] = 'real' === $types[$column][0] ? ExactFloat::text($values[$i]) : $values[$i];
        }

        return array_values($values);
    }
}
