<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\Fault\UnusableInput;

/** The cells of a delimited text file with their line numbers. Lines starting with # are remarks. */
final readonly class DelimitedTable
{
    /**
     * @param list<string>       $header
     * @param list<list<string>> $rows
     * @param list<int>          $lines line number of each row
     */
    private function __construct(
        public string $delimiter,
        public array $header,
        public bool $hasHeader,
        public array $rows,
        public array $lines,
    ) {
    }

    /** @throws UnusableInput empty, binary, or without columns */
    public static function parse(string $bytes): self
    {
        if ('' === trim($bytes)) {
            throw new UnusableInput('line 1', 'the file is empty');
        }
        if (str_contains(substr($bytes, 0, 65536), "\0")) {
            throw new UnusableInput('line 1', 'this is a binary file, not delimited text; export it as CSV');
        }
        if (str_starts_with($bytes, "\xEF\xBB\xBF")) {
            $bytes = substr($bytes, 3);
        }
        if (!mb_check_encoding($bytes, 'UTF-8')) {
            $bytes = mb_convert_encoding($bytes, 'UTF-8', 'Windows-1252');
        }
        $control = preg_match_all('/[\x01-\x08\x0B\x0C\x0E-\x1F]/', substr($bytes, 0, 4096));
        if ($control > 8) {
            throw new UnusableInput('line 1', 'this is a binary file, not delimited text; export it as CSV');
        }
        $texts = $lines = [];
        foreach (preg_split('/\r\n|\n|\r/', $bytes) ?: [] as $i => $text) {
            if ('' !== trim($text) && !str_starts_with(ltrim($text), '#')) {
                $texts[] = $text;
                $lines[] = $i + 1;
            }
        }
        if ([] === $texts) {
            throw new UnusableInput('line 1', 'the file holds remarks only');
        }
        $delimiter = self::guessDelimiter(\array_slice($texts, 0, 30));
        $rows = array_map(static fn (string $text): array => self::split($text, $delimiter), $texts);
        if (\count($rows[0]) < 2) {
            throw new UnusableInput('line '.$lines[0], 'no columns can be told apart; separate them with commas, semicolons, tabs or bars');
        }
        $hasHeader = 0 === \count(array_filter($rows[0], static fn (string $cell): bool => is_numeric(strtr($cell, ',', '.'))));
        $header = $hasHeader ? array_shift($rows) : array_map(static fn (int $i): string => 'column '.($i + 1), array_keys($rows[0]));
        if ($hasHeader) {
            array_shift($lines);
        }
        if ([] === $rows) {
            throw new UnusableInput('line 1', 'the file holds a heading but no rows');
        }

        return new self($delimiter, $header, $hasHeader, $rows, $lines);
    }

    /** @return list<string> */
    private static function split(string $text, string $delimiter): array
    {
        $cells = ' ' === $delimiter ? preg_split('/\s+/', trim($text)) ?: [] : str_getcsv($text, $delimiter, '"', '');

        return array_map(static fn (?string $cell): string => trim((string) $cell), $cells);
    }

    /** @param list<string> $texts */
    private static function guessDelimiter(array $texts): string
    {
        $best = [',', 0.0];
        foreach ([',', ';', "\t", '|', ' '] as $delimiter) {
            $counts = array_map(static fn (string $text): int => \count(self::split($text, $delimiter)), $texts);
            $first = $counts[0];
            $same = \count(array_filter($counts, static fn (int $c): bool => $c === $first)) / \count($counts);
            // A decimal comma must not win over the semicolon between the columns; blanks only when nothing else does.
            $score = $first < 2 ? 0.0 : $same * min($first, 12) * (' ' === $delimiter ? 0.3 : 1.0);
            if ($score > $best[1]) {
                $best = [$delimiter, $score];
            }
        }

        return $best[0];
    }
}
