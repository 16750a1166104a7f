<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Result\Result;

/**
 * What ties results together, in rows: the hash of what a run gave, and the versions of what it rests on. Both change with
 * the numbers of rows, and with both fresh must stay fresh and stale stale.
 */
final class ResultLinks
{
    /** Stands in an archive for the version of what has not changed since. */
    public const NOW = 'now';

    private const JSON = \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION;

    /**
     * @param array<string, string>            $outputs other hashes of outputs, by those in the rows
     * @param \Closure(string, string): string $version the other version, by what it is of and the version in the row
     */
    public function __construct(private readonly array $outputs, private readonly \Closure $version)
    {
    }

    /**
     * @param list<string> $columns
     * @param list<mixed>  $values
     *
     * @return list<mixed>
     */
    public function row(string $table, array $columns, array $values): array
    {
        if (!\in_array($table, ['result', 'remark'], true)) {
            return $values;
        }
        foreach ($columns as $i => $column) {
            if ('output' === $column) {
                $values[$i] = $this->outputs[(string) $values[$i]] ?? $values[$i];
            } elseif ('inputs' === $column) {
                $inputs = json_decode((string) $values[$i], true, 8, \JSON_THROW_ON_ERROR);
                foreach ($inputs as $what => $version) {
                    $inputs[$what] = str_starts_with((string) $what, Result::RESULT)
                        ? $this->outputs[$version] ?? $version : ($this->version)((string) $what, $version);
                }
                $values[$i] = json_encode($inputs, self::JSON);
            }
        }

        return array_values($values);
    }
}
