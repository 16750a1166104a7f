<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Store\NumbersWithin;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/**
 * Gives numbers of rows other values wherever they stand in a row: in columns that refer to another table, and where
 * {@see NumbersWithin} says.
 */
final class Renumbering
{
    private const JSON = \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION;
    /** Columns that say of what kind a row is. */
    private const KINDS = ['result' => 'kind', 'ledger_entry' => 'operation'];
    private const KEYS = '{}';

    /** @var array<string, array<string, string>> */
    private array $numbers = [];

    /** @var array<string, string> */
    private array $words = [];

    /** @param iterable<NumbersWithin> $declared */
    public function __construct(
        private readonly ArchivedTables $tables, #[AutowireIterator('app.numbers_within')] iterable $declared,
    ) {
        foreach ($declared as $d) {
            foreach ($d::numbers() as $where => $paths) {
                $this->numbers[$where] = ($this->numbers[$where] ?? []) + $paths;
            }
            $this->words += $d::words();
        }
    }

    /**
     * @param list<string>               $columns
     * @param list<mixed>                $values  as the database holds them, in the order of the columns
     * @param \Closure(string, int): int $numbers
     *
     * @return list<mixed>
     */
    public function row(string $table, array $columns, array $values, \Closure $numbers): array
    {
        $refers = $this->tables->refers($table);
        $kinds = self::kinds($table, $columns, $values);
        foreach ($columns as $i => $column) {
            if (null === $values[$i]) {
                continue;
            }
            if (isset($refers[$column])) {
                $values[$i] = $numbers($refers[$column], (int) $values[$i]);
            } elseif ([] !== $paths = $this->paths($table.'.'.$column, $kinds)) {
                $values[$i] = $this->value($values[$i], $paths, $numbers);
            }
        }

        return array_values($values);
    }

    /** @return array<string, string> what stands where in the JSON a result of this kind keeps in the store */
    public function output(string $kind): array
    {
        return $this->numbers['output '.$kind] ?? [];
    }

    /**
     * @param array<string, string>      $paths
     * @param \Closure(string, int): int $numbers
     */
    public function within(mixed $data, array $paths, \Closure $numbers): mixed
    {
        foreach ($paths as $path => $what) {
            $data = $this->at($data, '' === $path ? [] : explode('.', $path), $what, $numbers);
        }

        return $data;
    }

    /** @param \Closure(string, int): int $numbers */
    public function afterWord(string $text, \Closure $numbers): string
    {
        $begin = 1 === preg_match('/^(?:result:|[a-z]+\|)/', $text, $m) ? $m[0] : '';
        $rest = substr($text, \strlen($begin));
        $parts = explode(':', $rest);
        foreach ([2, 1] as $many) {
            $word = implode(':', \array_slice($parts, 0, $many));
            if (isset($this->words[$word], $parts[$many])) {
                $numbered = preg_replace_callback(
                    '/\d+/', fn (array $m): string => (string) self::number($this->words[$word], (int) $m[0], $numbers),
                    implode(':', \array_slice($parts, $many)),
                );

                return $begin.$word.':'.$numbered;
            }
        }

        return $text;
    }

    /**
     * @param list<string> $kinds
     *
     * @return array<string, string>
     */
    private function paths(string $where, array $kinds): array
    {
        $paths = $this->numbers[$where] ?? [];
        foreach ($kinds as $kind) {
            $paths += $this->numbers[$where.' '.$kind] ?? [];
        }

        return $paths;
    }

    /**
     * A result is of its kind, and of what its place is called: "export", "export:sheet".
     *
     * @param list<string> $columns
     * @param list<mixed>  $values
     *
     * @return list<string>
     */
    private static function kinds(string $table, array $columns, array $values): array
    {
        if (!isset(self::KINDS[$table])) {
            return [];
        }
        $row = array_combine($columns, $values);
        $kinds = [(string) ($row[self::KINDS[$table]] ?? '')];
        if (\is_string($row['slot'] ?? null)) {
            $kinds[] = implode(':', \array_slice(explode(':', $row['slot']), 0, 2));
        }

        return $kinds;
    }

    /**
     * @param array<string, string>      $paths
     * @param \Closure(string, int): int $numbers
     */
    private function value(mixed $value, array $paths, \Closure $numbers): mixed
    {
        if (isset($paths[''])) {
            return $this->leaf($value, $paths[''], $numbers);
        }

        // Written anew though nothing may change, so that the same data have the same text on both sides.
        return json_encode($this->within(json_decode((string) $value, true, 64, \JSON_THROW_ON_ERROR), $paths, $numbers), self::JSON);
    }

    /**
     * @param list<string>               $path
     * @param \Closure(string, int): int $numbers
     */
    private function at(mixed $data, array $path, string $what, \Closure $numbers): mixed
    {
        if ([] === $path) {
            return $this->leaf($data, $what, $numbers);
        }
        if (!\is_array($data)) {
            return $data;
        }
        $key = array_shift($path);
        if (self::KEYS === $key) {
            $other = [];
            foreach ($data as $k => $v) {
                $other[$this->leaf($k, $what, $numbers)] = $v;
            }

            return $other;
        }
        foreach ('*' === $key ? array_keys($data) : [$key] as $k) {
            if (isset($data[$k])) {
                $data[$k] = $this->at($data[$k], $path, $what, $numbers);
            }
        }

        return $data;
    }

    /** @param \Closure(string, int): int $numbers */
    private function leaf(mixed $value, string $what, \Closure $numbers): mixed
    {
        if (NumbersWithin::AFTER_WORD === $what) {
            return \is_string($value) ? $this->afterWord($value, $numbers) : $value;
        }
        if (NumbersWithin::AFTER_BAR === $what[0]) {
            $table = substr($what, 1);

            return !\is_string($value) ? $value : preg_replace_callback(
                '/(?<=\|)\d+$/', static fn (array $m): string => (string) self::number($table, (int) $m[0], $numbers), $value,
            );
        }

        return \is_int($value) ? self::number($what, $value, $numbers) : $value;
    }

    /**
     * 0 is none, wherever it stands.
     *
     * @param \Closure(string, int): int $numbers
     */
    private static function number(string $table, int $number, \Closure $numbers): int
    {
        return 0 === $number ? 0 : $numbers($table, $number);
    }
}
