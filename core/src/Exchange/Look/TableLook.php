<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Exchange\Delimited\Heading;
use Mensura\Exchange\Delimited\Headings;
use Mensura\Fault\UnusableInput;

/**
 * Tables of text, row by row: numbers and nothing else are xyz, everything else with columns is csv. Any separator, decimal
 * commas, any encoding, titles before the heading, remarks.
 */
final class TableLook
{
    private const HEAD = 65536;
    private const LONGEST = 1_000_000;

    /**
     * @param ?Tap $tap is given every row that is counted
     *
     * @return bool whether it is a table at all
     */
    public static function read(Looked $l, string $path, string $name, ?Tap $tap = null): bool
    {
        $head = (string) file_get_contents($path, length: self::HEAD);
        $encoding = self::encoding($head);
        if (null === $encoding) {
            return false;
        }
        $lines = self::sample(self::converted($head, $encoding), \strlen($head) < self::HEAD);
        if ([] === $lines) {
            return false;
        }
        $separator = self::separator($lines);
        if (null === $separator) {
            return false;
        }
        $rows = array_map(static fn (string $line): array => self::cells($line, $separator), $lines);
        $isXyz = [] === array_filter($rows, static fn (array $r): bool => !self::isNumbers($r));
        $l->kind = $isXyz ? 'xyz' : 'csv';
        $columns = $isXyz ? [null, 0, 1, 2] : self::columns($l, $rows);
        if (null === $columns) {
            return false;
        }
        $headings = $rows[($columns[0] ?? 0) - 1] ?? [];
        $taken = array_values(array_filter(\array_slice($columns, 1), is_int(...)));
        self::rows($l, $path, $encoding, $separator, $columns, $isXyz, $name, $tap, $headings, $taken);

        return true;
    }

    /**
     * @param array{?int, int, int, ?int} $columns number of heading rows to pass over, columns of easting, northing, height
     * @param list<string>                $headings
     * @param list<int>                   $taken
     */
    private static function rows(
        Looked $l, string $path, string $encoding, string $separator, array $columns, bool $isXyz, string $name,
        ?Tap $tap, array $headings, array $taken,
    ): void {
        $stream = fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read');
        [$before, $e, $n, $h] = $columns;
        $number = $seen = $width = 0;
        $isWide = str_starts_with($encoding, 'UTF-16');
        if ($isWide) {
            stream_filter_append($stream, "convert.iconv.$encoding/UTF-8");
        }
        while (false !== $line = @fgets($stream, self::LONGEST)) {
            ++$number;
            $text = rtrim($isWide ? $line : self::converted($line, $encoding), "\r\n");
            foreach (1 === preg_match('/\r./', $text) ? explode("\r", $text) : [$text] as $row) {
                if (self::isRemark($row)) {
                    continue;
                }
                ++$seen;
                if (null !== $before && $seen <= $before) {
                    continue;
                }
                $cells = self::cells($row, $separator);
                $width = max($width, \count($cells));
                if (!str_ends_with($line, "\n") && feof($stream)) {
                    $isCut = \count($cells) < $width;
                    $l->warn(\sprintf('line %d, the last, has no end of line%s', $number, $isCut ? ': it is cut off' : ''));
                    if ($isCut) {
                        continue;
                    }
                }
                if ($isXyz && !self::isNumbers($cells)) {
                    $l->warn(\sprintf('line %d is not numbers alone; it is not counted', $number));
                    continue;
                }
                $x = self::number($cells[$e] ?? '');
                $y = self::number($cells[$n] ?? '');
                if (null === $x || null === $y) {
                    $l->warn(\sprintf('line %d has no coordinates where the others have them; it is not counted', $number));
                    continue;
                }
                $l->count(Looked::POINT);
                $z = null === $h ? null : self::number($cells[$h] ?? '');
                $l->reach($x, $y, $z);
                $tap?->row($cells, [$x, $y, $z], $headings, $taken);
            }
        }
        if (!feof($stream)) {
            $l->warn(\sprintf('line %d cannot be read in its encoding: the file is cut off or damaged', $number + 1));
        }
        fclose($stream);
    }

    /**
     * Which column is what; headings are looked for in the first rows, titles before them are passed over.
     *
     * @param list<list<string>> $rows
     *
     * @return ?array{?int, int, int, ?int} null where none are coordinates
     */
    private static function columns(Looked $l, array $rows): ?array
    {
        foreach ($rows as $i => $row) {
            $words = array_map(static fn (string $cell): string => Heading::of($cell)->word, $row);
            $e = self::column($words, Headings::EASTING);
            $n = self::column($words, Headings::NORTHING);
            $lon = self::column($words, Headings::LONGITUDE);
            $lat = self::column($words, Headings::LATITUDE);
            $h = self::column($words, Headings::HEIGHT);
            $isGeographic = null === $e || null === $n;
            if ($isGeographic && (null === $lon || null === $lat)) {
                continue;
            }
            [$x, $y] = $isGeographic ? [$lon, $lat] : [$e, $n];
            if (null === $x || null === $y) {
                continue;
            }
            if ($isGeographic) {
                $l->unit = 'degree';
            }
            foreach ($row as $k => $heading) {
                if (!\in_array($k, [$x, $y, $h], true) && '' !== trim($heading)) {
                    $l->attribute(trim($heading));
                }
            }

            return [$i + 1, $x, $y, $h];
        }
        // No heading: a name, then two or three columns of numbers.
        $first = $rows[0];
        for ($k = 0; $k + 1 < \count($first); ++$k) {
            $isNumber = static fn (int $c): bool => isset($first[$c]) && null !== self::number($first[$c]);
            $isName = $k < 1 && \count($first) > 3 && $isNumber(0) && $isNumber(1) && $isNumber(2) && $isNumber(3);
            if (!$isName && $isNumber($k) && $isNumber($k + 1)) {
                return [0, $k, $k + 1, $isNumber($k + 2) ? $k + 2 : null];
            }
        }

        return null;
    }

    /**
     * @param list<string> $words
     * @param list<string> $known
     */
    private static function column(array $words, array $known): ?int
    {
        foreach ($known as $word) {
            $at = array_search($word, $words, true);
            if (false !== $at) {
                return $at;
            }
        }

        return null;
    }

    /** @return list<string> lines that say something */
    private static function sample(string $text, bool $isWhole): array
    {
        $lines = preg_split('/\r\n|\n|\r/', $text) ?: [];
        if (!$isWhole) {
            array_pop($lines);
        }
        $lines = array_values(array_filter($lines, static fn (string $line): bool => !self::isRemark($line)));

        return \array_slice($lines, 0, 400);
    }

    private static function isRemark(string $line): bool
    {
        $text = trim($line);

        return '' === $text || '#' === $text[0] || str_starts_with($text, '//') || 1 === preg_match('/^;[^;]*$/', $text);
    }

    /**
     * The separator that gives the most rows the same number of columns, two at least.
     *
     * @param list<string> $lines
     */
    private static function separator(array $lines): ?string
    {
        $best = null;
        $most = 0;
        foreach ([';', "\t", '|', ',', ' '] as $separator) {
            $widths = array_map(static fn (string $line): int => \count(self::cells($line, $separator)), $lines);
            $counts = array_count_values(array_filter($widths, static fn (int $n): bool => $n > 1));
            arsort($counts);
            $same = (int) reset($counts);
            // Of a comma that is the decimal sign each number makes two.
            if (',' === $separator && $same > 0 && null !== $best) {
                continue;
            }
            if ($same > $most && $same > 0.5 * \count($lines)) {
                [$best, $most] = [$separator, $same];
            }
            if (null !== $best && ' ' !== $separator && $most > 0.8 * \count($lines)) {
                break;
            }
        }

        return $best;
    }

    /** @return list<string> */
    private static function cells(string $line, string $separator): array
    {
        if (' ' === $separator) {
            return preg_split('/\s+/', trim($line)) ?: [];
        }

        return array_values(array_map(static fn (?string $c): string => trim((string) $c), str_getcsv($line, $separator, '"', '')));
    }

    /** @param list<string> $cells */
    private static function isNumbers(array $cells): bool
    {
        while ([] !== $cells && '' === $cells[\count($cells) - 1]) {
            array_pop($cells);
        }
        foreach ($cells as $cell) {
            if (null === self::number($cell)) {
                return false;
            }
        }

        return \count($cells) > 2;
    }

    private static function number(string $text): ?float
    {
        if (is_numeric($text)) {
            return is_finite((float) $text) ? (float) $text : null;
        }
        $point = str_replace(',', '.', $text);

        return 1 === substr_count($text, ',') && is_numeric($point) ? (float) $point : null;
    }

    /** The encoding of a text; null where it is none. */
    private static function encoding(string $head): ?string
    {
        if (str_starts_with($head, "\xFF\xFE")) {
            return 'UTF-16LE';
        }
        if (str_starts_with($head, "\xFE\xFF")) {
            return 'UTF-16BE';
        }
        $zeros = substr_count($head, "\0");
        if ($zeros > 0) {
            $even = \strlen($head) > 3 && "\0" === $head[1] && "\0" === $head[3];
            $odd = \strlen($head) > 3 && "\0" === $head[0] && "\0" === $head[2];

            return 2 * $zeros < 0.8 * \strlen($head) ? null : ($even ? 'UTF-16LE' : ($odd ? 'UTF-16BE' : null));
        }
        if (1 === preg_match('/[\x01-\x08\x0E-\x1F]/', $head)) {
            return null;
        }

        return mb_check_encoding(mb_strcut($head, 0, max(0, \strlen($head) - 4), 'UTF-8'), 'UTF-8') ? 'UTF-8' : 'Windows-1252';
    }

    private static function converted(string $text, string $encoding): string
    {
        if ('UTF-8' === $encoding) {
            return str_starts_with($text, "\xEF\xBB\xBF") ? substr($text, 3) : $text;
        }
        $text = (string) mb_convert_encoding($text, 'UTF-8', $encoding);

        return str_starts_with($text, "\u{FEFF}") ? substr($text, 3) : $text;
    }
}
