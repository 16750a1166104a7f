<?php

declare(strict_types=1);

namespace Mensura\Exchange\CoordinateCsv;

/**
 * A list of coordinates as CSV with units in its headings (RFC 4180, UTF-8); metres. Reads back by {@see
 * \Mensura\Exchange\Delimited\DelimitedTable}.
 */
final class CoordinateCsv
{
    public const HEADING = ['point', 'easting [m]', 'northing [m]', 'height [m]', 'code', 'role', 'source'];

    /** @param iterable<array{name: string, e: float, n: float, h: ?float, code: string, role: string, source: string}> $points */
    public static function write(iterable $points, string $remark, string $path): void
    {
        $stream = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        foreach (explode("\n", $remark) as $line) {
            fwrite($stream, '# '.$line."\r\n");
        }
        fputcsv($stream, self::HEADING, ',', '"', '', "\r\n");
        foreach ($points as $p) {
            $row = [
                self::safe($p['name']), \sprintf('%.5F', $p['e']), \sprintf('%.5F', $p['n']),
                null === $p['h'] ? '' : \sprintf('%.5F', $p['h']),
                self::safe($p['code']), $p['role'], $p['source'],
            ];
            fputcsv($stream, $row, ',', '"', '', "\r\n");
        }
        fclose($stream);
    }

    /** A cell that a spreadsheet would run as a formula is written as text; a signed number is none. */
    private static function safe(string $cell): string
    {
        return 1 === preg_match('/^[=+\-@\t\r]/', $cell) && !is_numeric($cell) ? "'".$cell : $cell;
    }
}
