<?php

declare(strict_types=1);

namespace Mensura\Exchange\PassesJson;

use Mensura\Fault\UnusableInput;
use Mensura\Passes\Trajectory;

/** A CSV with the columns time, e, n, h among others, in any order; blank lines and remarks (#) are passed over. Seconds, metres. */
final class TimedCsv
{
    private const FARTHEST = 1e9;
    private const AT_ONCE = 8_000;
    private const WANTED = ['time', 'e', 'n', 'h'];
    /** Have to be numbers where they are there. */
    private const NUMBERS = ['roll', 'pitch', 'heading'];

    /** @var non-empty-string */
    private string $delimiter = ',';
    /** @var array<string, int> */
    private array $columns = [];
    /** @var array<string, int> */
    private array $others = [];

    /** @param string $name for messages */
    public function __construct(private readonly string $path, private readonly string $name)
    {
    }

    /**
     * Every line as it is, with what it says; null for the heading and for lines that say nothing.
     *
     * @return \Generator<int, array{string, ?array{float, float, float, float}}>
     *
     * @throws UnusableInput naming the line
     */
    public function lines(): \Generator
    {
        $stream = is_dir($this->path) ? false : @fopen($this->path, 'r');
        if (false === $stream) {
            throw new UnusableInput($this->name, 'cannot be read; is the file there?');
        }
        $this->columns = [];
        for ($number = 1; false !== ($line = fgets($stream)); ++$number) {
            $text = trim($line, " \t\r\n\xEF\xBB\xBF");
            if ('' === $text || '#' === $text[0]) {
                yield $number => [$line, null];
            } elseif ([] === $this->columns) {
                $this->heading($text, $number);
                yield $number => [$line, null];
            } else {
                yield $number => [$line, $this->row($text, $number)];
            }
        }
        if ([] === $this->columns) {
            throw new UnusableInput($this->name, 'is empty; its first line names the columns time,e,n,h');
        }
    }

    /** Whether a file begins as a trajectory does. */
    public static function isTrajectory(string $head): bool
    {
        foreach (preg_split('/\r\n|\n|\r/', $head) ?: [] as $line) {
            $line = trim($line, " \t\xEF\xBB\xBF");
            if ('' !== $line && '#' !== $line[0]) {
                $names = array_map(static fn (string $c): string => strtolower(trim($c, " \t\"")), preg_split('/[,;\t]/', $line) ?: []);

                return [] === array_diff([...self::WANTED, ...self::NUMBERS], $names);
            }
        }

        return false;
    }

    /**
     * All of it, for a file whose times grow.
     *
     * @throws UnusableInput naming the line
     */
    public function trajectory(): Trajectory
    {
        $t = $e = $n = $h = [];
        $last = -\INF;
        foreach ($this->lines() as $line => [, $row]) {
            if (null === $row) {
                continue;
            }
            if ($row[0] <= $last) {
                $words = \sprintf('the time %s is not after the %s before it; sort the rows by time', $row[0], $last);
                throw new UnusableInput("{$this->name} line $line", $words);
            }
            $last = $row[0];
            [$t[], $e[], $n[], $h[]] = $row;
        }
        if ([] === $t || [] === $e || [] === $n || [] === $h) {
            throw new UnusableInput($this->name, 'holds a heading but no rows');
        }

        return new Trajectory($t, $e, $n, $h);
    }

    /**
     * Rows, many at once.
     *
     * @return \Generator<array{list<float>, list<float>, list<float>, list<float>}> time, e, n, h
     *
     * @throws UnusableInput
     */
    public function blocks(): \Generator
    {
        $t = $x = $y = $z = [];
        foreach ($this->lines() as [, $row]) {
            if (null !== $row) {
                [$t[], $x[], $y[], $z[]] = $row;
                if (\count($t) >= self::AT_ONCE) {
                    yield [$t, $x, $y, $z];
                    $t = $x = $y = $z = [];
                }
            }
        }
        if ([] !== $t) {
            yield [$t, $x, $y, $z];
        }
    }

    /**
     * A line with other places, all else in it as it was.
     *
     * @param array{float, float, float} $place
     */
    public function withPlace(string $line, array $place): string
    {
        $fields = self::split($line, $this->delimiter);
        foreach (['e', 'n', 'h'] as $k => $column) {
            $field = $fields[$this->columns[$column]];
            $decimals = 1 === preg_match('/\.(\d+)(?![\d.]*e)/i', $field, $found) ? \strlen($found[1]) : 0;
            $number = number_format($place[$k], max(4, min(12, $decimals)), '.', '');
            $fields[$this->columns[$column]] = (string) preg_replace('/[^\s"\xEF\xBB\xBF]+/', $number, $field, 1);
        }

        return implode($this->delimiter, $fields);
    }

    private function heading(string $text, int $number): void
    {
        $this->delimiter = str_contains($text, ',') ? ',' : (str_contains($text, ';') ? ';' : "\t");
        $names = array_map(static fn (string $c): string => strtolower(trim($c, " \t\"")), explode($this->delimiter, $text));
        foreach (self::WANTED as $wanted) {
            $found = array_search($wanted, $names, true);
            if (false === $found) {
                $has = implode(', ', \array_slice($names, 0, 12));
                $words = \sprintf('has no column "%s"; it has %s. The columns time,e,n,h are needed', $wanted, $has);
                throw new UnusableInput("{$this->name} line $number", $words);
            }
            $this->columns[$wanted] = $found;
        }
        $this->others = array_intersect_key(array_flip($names), array_flip(self::NUMBERS));
    }

    /** @return array{float, float, float, float} */
    private function row(string $text, int $number): array
    {
        $fields = str_contains($text, '"') ? str_getcsv($text, $this->delimiter, '"', '') : explode($this->delimiter, $text);
        $values = [];
        foreach ($this->columns + $this->others as $column => $at) {
            $field = trim((string) ($fields[$at] ?? ''));
            if (!is_numeric($field) || !is_finite((float) $field)) {
                throw new UnusableInput("{$this->name} line $number", \sprintf('column %s: "%s" is not a number', $column, $field));
            }
            $values[] = (float) $field;
        }
        if (abs($values[1]) > self::FARTHEST || abs($values[2]) > self::FARTHEST || abs($values[3]) > self::FARTHEST) {
            throw new UnusableInput("{$this->name} line $number", 'has a coordinate beyond a million kilometres');
        }

        return [$values[0], $values[1], $values[2], $values[3]];
    }

    /**
     * @param non-empty-string $delimiter
     *
     * @return list<string> with their quotes
     */
    private static function split(string $line, string $delimiter): array
    {
        $fields = [''];
        $isQuoted = false;
        foreach (explode($delimiter, $line) as $k => $part) {
            if ($isQuoted) {
                $fields[array_key_last($fields)] .= $delimiter.$part;
            } elseif (0 === $k) {
                $fields = [$part];
            } else {
                $fields[] = $part;
            }
            $isQuoted = $isQuoted !== (1 === substr_count($part, '"') % 2);
        }

        return $fields;
    }
}
