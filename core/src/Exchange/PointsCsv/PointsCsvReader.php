<?php

declare(strict_types=1);

namespace Mensura\Exchange\PointsCsv;

use Mensura\Fault\UnusableInput;

/** Reads a CSV of points with columns id, e, n, h (any order, others ignored) as flat arrays; metres. */
final class PointsCsvReader
{
    private const FARTHEST = 1e9;

    /**
     * @param resource $stream
     * @param string   $name   of the file, for messages
     *
     * @return array{names: list<string>, x: list<float>, y: list<float>, z: list<float>}
     *
     * @throws UnusableInput
     */
    public static function read($stream, string $name): array
    {
        $header = fgets($stream);
        if (false === $header || '' === trim($header)) {
            throw new UnusableInput("$name line 1", 'is empty; the first line must name the columns id,e,n,h');
        }
        if (str_contains($header, "\0")) {
            throw new UnusableInput("$name line 1", 'is not text; a CSV file with the columns id,e,n,h is needed');
        }
        $columns = array_map(static fn (string $c): string => strtolower(trim($c, " \t\r\n\"\xEF\xBB\xBF")), explode(',', $header));
        $where = [];
        foreach (['id', 'e', 'n', 'h'] as $wanted) {
            $found = array_search($wanted, $columns, true);
            if (false === $found) {
                throw new UnusableInput("$name line 1", \sprintf('has no column "%s"; it has %s', $wanted, implode(', ', $columns)));
            }
            $where[] = $found;
        }
        [$ci, $ce, $cn, $ch] = $where;
        $last = max($where);
        $names = $x = $y = $z = [];
        $number = 1;
        while (false !== ($line = fgets($stream))) {
            ++$number;
            $fields = str_contains($line, '"') ? str_getcsv($line, ',', '"', '') : explode(',', $line);
            if (!isset($fields[$last])) {
                if ('' === trim($line)) {
                    continue;
                }
                throw new UnusableInput("$name line $number", \sprintf('has %d columns, %d are needed', \count($fields), $last + 1));
            }
            $e = $fields[$ce];
            $n = $fields[$cn];
            $h = $fields[$ch];
            if (!is_numeric($e) || !is_numeric($n) || !is_numeric($h = rtrim((string) $h))) {
                foreach (['e' => $e, 'n' => $n, 'h' => $h] as $column => $value) {
                    if (!is_numeric(trim((string) $value))) {
                        throw new UnusableInput(
                            "$name line $number",
                            \sprintf('column %s: "%s" is not a number', $column, trim((string) $value)),
                        );
                    }
                }
            }
            $e = (float) $e;
            $n = (float) $n;
            $h = (float) $h;
            if (!(abs($e) < self::FARTHEST && abs($n) < self::FARTHEST && abs($h) < self::FARTHEST)) {
                throw new UnusableInput("$name line $number", 'has a coordinate beyond a million kilometres');
            }
            $names[] = trim((string) $fields[$ci]);
            $x[] = $e;
            $y[] = $n;
            $z[] = $h;
        }

        return ['names' => $names, 'x' => $x, 'y' => $y, 'z' => $z];
    }
}
