<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;

/** Tables beside shapefiles: dBASE III in UTF-8, names of fields of at most ten bytes, texts of at most 254. */
final class DbfWriter
{
    private const LONGEST_NAME = 10;
    private const LONGEST_TEXT = 254;
    private const MOST_FIELDS = 255;

    /**
     * @param list<Feature> $features
     * @param list<string>  $columns
     * @param string        $date    year-month-day
     */
    public function write(array $features, array $columns, string $path, string $date, Lost $lost): void
    {
        if (\count($columns) > self::MOST_FIELDS) {
            $lost->say(\sprintf('the properties after the first %d', self::MOST_FIELDS));
            $columns = \array_slice($columns, 0, self::MOST_FIELDS);
        }
        $fit = static fn (string $name): string => (string) preg_replace('/[\x00-\x1F]/', '', $name);
        $names = Plain::different([] === $columns ? ['fid'] : $columns, $fit, self::LONGEST_NAME);
        $fields = [];
        foreach ($names as $column => $name) {
            if ((string) $column !== $name) {
                $lost->say(\sprintf('the field name %s, written as %s', $column, $name));
            }
            $fields[] = [(string) $column, $name, ...self::type($features, (string) $column)];
        }
        $head = $rows = '';
        $width = 1;
        foreach ($fields as [, $name, $type, $size, $decimals]) {
            $head .= str_pad($name, 11, "\0").$type.pack('V', 0).pack('CC', $size, $decimals).str_repeat("\0", 14);
            $width += $size;
        }
        foreach ($features as $i => $f) {
            $rows .= ' ';
            foreach ($fields as [$column, , $type, $size, $decimals]) {
                $value = [] === $columns ? $i + 1 : $f->properties[$column] ?? null;
                $rows .= self::cell($value, $type, $size, $decimals, $column, $lost);
            }
        }
        $size = 33 + \strlen($head);
        [$year, $month, $day] = array_map(intval(...), explode('-', $date));
        $date = pack('C3', $year - 1900, $month, $day);
        file_put_contents($path, "\x03".$date.pack('Vvv', \count($features), $size, $width).str_repeat("\0", 20).$head."\r".$rows."\x1A");
    }

    /**
     * @param list<Feature> $features
     *
     * @return array{string, int, int} type, width, decimals
     */
    private static function type(array $features, string $column): array
    {
        $isWhole = $isNumber = $isTruth = true;
        $longest = 1;
        $decimals = 0;
        foreach ($features as $f) {
            $value = $f->properties[$column] ?? null;
            if (null === $value) {
                continue;
            }
            $text = Plain::text($value);
            $longest = max($longest, \strlen($text));
            $isTruth = $isTruth && \is_bool($value);
            $isWhole = $isWhole && \is_int($value);
            $isNumber = $isNumber && (\is_int($value) || \is_float($value));
            $dot = strpos($text, '.');
            $decimals = max($decimals, false === $dot ? 0 : \strlen($text) - $dot - 1);
        }
        if ($isWhole && $longest <= 18) {
            return ['N', $longest, 0];
        }
        // One with decimals stands beside one with many figures before its point.
        if ($isNumber && !$isTruth && $decimals <= 15 && $longest + $decimals + 1 <= 32) {
            return ['N', min(32, $longest + $decimals + 1), $decimals];
        }

        return $isTruth ? ['L', 1, 0] : ['C', min(self::LONGEST_TEXT, $longest), 0];
    }

    private static function cell(
        string|int|float|bool|null $value, string $type, int $size, int $decimals, string $column, Lost $lost,
    ): string {
        if ('L' === $type) {
            return null === $value ? '?' : ((bool) $value ? 'T' : 'F');
        }
        if ('N' === $type) {
            return str_pad(match (true) {
                null === $value => '', $decimals > 0 => number_format((float) $value, $decimals, '.', ''), default => (string) $value,
            }, $size, ' ', \STR_PAD_LEFT);
        }
        $text = Plain::text($value);
        $cut = mb_strcut($text, 0, $size, 'UTF-8');
        if ($cut !== $text) {
            $lost->count("texts of $column beyond ".self::LONGEST_TEXT.' bytes');
        }

        return str_pad($cut, $size);
    }
}
