<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Store\ExactFloat;
use App\Store\Journaled;
use App\Store\SqlitePragmas;
use App\Store\Versioned;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;

/**
 * Rows of any journaled table, put back as they were. In SQL because undoing restores rows by the ten thousand, to the
 * last bit, whatever their entity would make of them today.
 */
final class ImageRepository
{
    /** SQLSTATE of a constraint that does not hold. */
    private const CONSTRAINT = '23000';

    private readonly Connection $connection;

    /** @var array<string, \PDOStatement> */
    private array $statements = [];

    /** @var ?array<string, bool> tables operations write, and whether they carry a version */
    private ?array $tables = null;

    public function __construct(private readonly EntityManagerInterface $entities)
    {
        $this->connection = $entities->getConnection();
    }

    /**
     * Makes rows what the images say they were after: the present must be what they say it was before.
     *
     * @throws LaterChange when a row no longer is what the change left
     */
    public function restore(Journal $journal, Images $images): void
    {
        $versioned = $this->tables()[$images->table] ?? throw new \LogicException("Operations do not write {$images->table}.");
        try {
            foreach (array_chunk($images->rows, Journal::ROWS_PER_LINE) as $rows) {
                $this->compare($images, $rows);
                $this->write($images, $rows, $versioned ? $journal->seq : null);
            }
        } catch (\PDOException $e) {
            // Something made later rests on these rows.
            throw self::CONSTRAINT === (string) $e->getCode() ? new LaterChange($images->table, $images->rows[0][0]) : $e;
        }
        $this->statements = [];
        $journal->record($images);
    }

    /** @param list<array{int, ?list<mixed>, ?list<mixed>}> $rows */
    private function compare(Images $images, array $rows): void
    {
        $present = [];
        $sql = \sprintf('SELECT id, %s FROM %s WHERE id IN (?)', implode(', ', $images->columns), $images->table);
        foreach ($this->connection->iterateNumeric($sql, [array_column($rows, 0)], [ArrayParameterType::INTEGER]) as $row) {
            $present[array_shift($row)] = $row;
        }
        foreach ($rows as [$id, $before]) {
            if (($present[$id] ?? null) !== $before) {
                throw new LaterChange($images->table, $id);
            }
        }
    }

    /** @param list<array{int, ?list<mixed>, ?list<mixed>}> $rows */
    private function write(Images $images, array $rows, ?int $version): void
    {
        $columns = null === $version ? $images->columns : [...$images->columns, Versioned::COLUMN];
        $isFloat = array_map(static fn (int $i): bool => self::isFloat($rows, $i), array_keys($images->columns));
        $places = array_map(
            static fn (bool $f): string => $f ? SqlitePragmas::EXACT.'(?)' : '?',
            [...$isFloat, ...(null === $version ? [] : [false])],
        );
        $sets = implode(', ', array_map(static fn (string $c, string $p): string => "$c = $p", $columns, $places));
        $inserts = \sprintf('INSERT INTO %s (%s, id) VALUES (%s, ?)', $images->table, implode(', ', $columns), implode(', ', $places));
        $delete = $this->statement("DELETE FROM {$images->table} WHERE id = ?");
        $insert = $this->statement($inserts);
        $update = $this->statement("UPDATE {$images->table} SET $sets WHERE id = ?");
        $floats = array_keys(array_filter($isFloat));
        foreach ($rows as [$id, $before, $after]) {
            if (null === $after) {
                $delete->execute([$id]);
                continue;
            }
            foreach ($floats as $i) {
                $after[$i] = ExactFloat::text($after[$i]);
            }
            $values = null === $version ? [...$after, $id] : [...$after, $version, $id];
            (null === $before ? $insert : $update)->execute($values);
        }
    }

    /** Prepared once for all rows that are written alike. */
    private function statement(string $sql): \PDOStatement
    {
        if (!isset($this->statements[$sql])) {
            $pdo = $this->connection->getNativeConnection();
            \assert($pdo instanceof \PDO);
            $this->statements[$sql] = $pdo->prepare($sql);
        }

        return $this->statements[$sql];
    }

    /** @param list<array{int, ?list<mixed>, ?list<mixed>}> $rows */
    private static function isFloat(array $rows, int $column): bool
    {
        foreach ($rows as [, $before, $after]) {
            if (\is_float($before[$column] ?? null) || \is_float($after[$column] ?? null)) {
                return true;
            }
        }

        return false;
    }

    /** @return array<string, bool> */
    private function tables(): array
    {
        if (null === $this->tables) {
            $this->tables = [];
            foreach ($this->entities->getMetadataFactory()->getAllMetadata() as $class) {
                if (is_subclass_of($class->getName(), Journaled::class)) {
                    $this->tables[$class->getTableName()] = is_subclass_of($class->getName(), Versioned::class);
                }
            }
        }

        return $this->tables;
    }
}
