<?php

declare(strict_types=1);

namespace Mensura\Exchange\LevelCsv;

use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Fault\UnusableInput;
use Mensura\Levelling\Pattern;
use Mensura\Levelling\Sight;

/**
 * Levelled runs as delimited records, as digital levels write them out: a row per reading, columns run, kind, point,
 * reading and distance in metres (docs/formats.md). The pattern of a run is told by its first setup.
 */
final class LevelCsv
{
    private const HEADINGS = [
        'run' => ['run', 'line', 'zug', 'linie', 'ligne'],
        'kind' => ['kind', 'sight', 'type', 'art', 'visee'],
        'point' => ['point', 'pointid', 'name', 'punkt', 'station', 'id'],
        'reading' => ['reading', 'staff', 'ablesung', 'lecture', 'rod'],
        'upper' => ['upper', 'upperhair', 'upperstadia', 'oberer', 'oben', 'hilosuperior'],
        'lower' => ['lower', 'lowerhair', 'lowerstadia', 'unterer', 'unten', 'hiloinferior'],
        'distance' => ['distance', 'length', 'dist', 'strecke', 'zielweite', 'hd'],
    ];

    /** Multiplication constant of a levelling telescope. */
    private const STADIA = 100.0;

    private const KINDS = [
        Sight::BACK => ['back', 'backsight', 'b', 'bs', 'r', 'ruck', 'rueck'],
        Sight::FORE => ['fore', 'foresight', 'f', 'fs', 'v', 'vor'],
        Sight::INTERMEDIATE => ['intermediate', 'intermediatesight', 'i', 'is', 'side', 'z', 'zwischen'],
    ];

    /**
     * @return list<array{name: string, pattern: string, rows: list<array{kind: string, point: string, reading: float, distance: ?float}>}>
     *
     * @throws UnusableInput naming the line
     */
    public static function read(string $bytes): array
    {
        $table = DelimitedTable::parse($bytes);
        $columns = self::columns($table);
        $runs = [];
        foreach ($table->rows as $k => $cells) {
            $where = 'line '.$table->lines[$k];
            $cell = static fn (string $name): string => isset($columns[$name]) ? trim($cells[$columns[$name]] ?? '') : '';
            $run = '' === $cell('run') ? '1' : $cell('run');
            $point = $cell('point');
            if ('' === $point) {
                throw new UnusableInput($where, 'the reading has no point');
            }
            $runs["r$run"] ??= ['name' => $run, 'pattern' => Pattern::BackFore->value, 'rows' => []];
            $runs["r$run"]['rows'][] = [
                'kind' => self::kind($cell('kind'), $where), 'point' => $point,
                'reading' => self::number($cell('reading'), $where, 'reading') ?? throw new UnusableInput($where, 'there is no reading'),
                'distance' => self::distance($cell, $where),
            ];
        }
        foreach ($runs as $key => $run) {
            $runs[$key]['pattern'] = self::pattern($run['rows'])->value;
        }

        return array_values($runs);
    }

    /**
     * Writes runs as they are read, with the running height of each point beside (RFC 4180, UTF-8).
     *
     * @param iterable<array{run: string, kind: string, point: string, reading: float, distance: ?float, height: ?float}> $rows
     */
    public static function write(iterable $rows, string $remark, string $path): void
    {
        $stream = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        foreach (explode("\n", $remark) as $line) {
            fwrite($stream, '# '.$line."\r\n");
        }
        fputcsv($stream, ['run', 'kind', 'point', 'reading [m]', 'distance [m]', 'height [m]'], ',', '"', '', "\r\n");
        foreach ($rows as $r) {
            fputcsv($stream, [
                self::safe($r['run']), $r['kind'], self::safe($r['point']), \sprintf('%.5F', $r['reading']),
                null === $r['distance'] ? '' : \sprintf('%.3F', $r['distance']),
                null === $r['height'] ? '' : \sprintf('%.5F', $r['height']),
            ], ',', '"', '', "\r\n");
        }
        fclose($stream);
    }

    /** A cell that a spreadsheet would run as a formula is written as text. */
    private static function safe(string $cell): string
    {
        return 1 === preg_match('/^[=+\-@\t\r]/', $cell) && !is_numeric($cell) ? "'".$cell : $cell;
    }

    /** @return array<string, int> */
    private static function columns(DelimitedTable $table): array
    {
        $columns = [];
        if ($table->hasHeader) {
            foreach ($table->header as $i => $heading) {
                $word = strtolower((string) preg_replace('/\[.*?\]|\(.*?\)|[^a-zA-Z]/', '', $heading));
                foreach (self::HEADINGS as $name => $words) {
                    if (\in_array($word, $words, true) && !isset($columns[$name])) {
                        $columns[$name] = $i;
                    }
                }
            }
        } else {
            $columns = 5 <= \count($table->header) ? ['run' => 0, 'kind' => 1, 'point' => 2, 'reading' => 3, 'distance' => 4]
                : ['kind' => 0, 'point' => 1, 'reading' => 2, 'distance' => 3];
        }
        foreach (['kind', 'point', 'reading'] as $name) {
            if (!isset($columns[$name])) {
                throw new UnusableInput('line 1', \sprintf(
                    'no column is headed "%s"; levelled runs have the columns run, kind (back, fore or intermediate), '
                        .'point, reading [m] and distance [m]',
                    $name,
                ));
            }
        }

        return $columns;
    }

    /** @return Sight::BACK|Sight::FORE|Sight::INTERMEDIATE */
    private static function kind(string $word, string $where): string
    {
        $plain = strtolower((string) preg_replace('/[^a-zA-Z]/', '', strtr($word, ['ü' => 'ue', 'Ü' => 'ue', 'é' => 'e', 'è' => 'e'])));
        foreach (self::KINDS as $kind => $words) {
            if (\in_array($plain, $words, true)) {
                return $kind;
            }
        }
        throw new UnusableInput($where, \sprintf('"%s" is no kind of sight; write back, fore or intermediate', mb_substr($word, 0, 20)));
    }

    private static function number(string $cell, string $where, string $what): ?float
    {
        if ('' === $cell) {
            return null;
        }
        $plain = strtr($cell, ',', '.');
        if (!is_numeric($plain) || !is_finite((float) $plain)) {
            throw new UnusableInput($where, \sprintf('the %s "%s" is not a number', $what, mb_substr($cell, 0, 20)));
        }

        return (float) $plain;
    }

    /**
     * As stated, or from the stadia hairs: a hundred times what they span on the staff (common practice).
     *
     * @param \Closure(string): string $cell
     */
    private static function distance(\Closure $cell, string $where): ?float
    {
        $stated = self::number($cell('distance'), $where, 'distance');
        $upper = self::number($cell('upper'), $where, 'upper hair');
        $lower = self::number($cell('lower'), $where, 'lower hair');
        if (null !== $stated || null === $upper && null === $lower) {
            return $stated;
        }
        if (null === $upper || null === $lower) {
            throw new UnusableInput($where, 'a distance by stadia needs the upper and the lower hair');
        }

        return self::STADIA * abs($upper - $lower);
    }

    /** @param list<array{kind: string, point: string, reading: float, distance: ?float}> $rows */
    private static function pattern(array $rows): Pattern
    {
        $letters = '';
        foreach ($rows as $row) {
            $letters .= ['back' => 'B', 'fore' => 'F'][$row['kind']] ?? '';
        }
        foreach ([Pattern::BackForeForeBack, Pattern::BackBackForeFore] as $pattern) {
            if (str_starts_with($letters, $pattern->value)) {
                return $pattern;
            }
        }

        return Pattern::BackFore;
    }
}
