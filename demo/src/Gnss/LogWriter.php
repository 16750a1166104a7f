<?php

declare(strict_types=1);

namespace Demo\Gnss;

use Mensura\Exchange\ReceiverLog\ReceiverLog;

/** The simulated receiver's own log, from what it would write as RINEX: the same numbers in another form. */
final class LogWriter
{
    public static function write(string $rinex, string $navigation): string
    {
        $lines = explode("\n", $rinex);
        $head = ['format' => ReceiverLog::FORMAT];
        $types = [];
        $out = [];
        for ($k = 0; $k < \count($lines); ++$k) {
            $line = $lines[$k];
            $label = trim(substr($line, 60));
            if ('MARKER NAME' === $label) {
                $head['marker'] = trim(substr($line, 0, 60));
            } elseif ('REC # / TYPE / VERS' === $label) {
                $head['receiver'] = trim(substr($line, 20, 20));
            } elseif ('ANT # / TYPE' === $label) {
                $head['antenna'] = trim(substr($line, 20, 20));
            } elseif ('APPROX POSITION XYZ' === $label) {
                $head['position'] = array_map(floatval(...), preg_split('/\s+/', trim(substr($line, 0, 60))) ?: []);
            } elseif ('ANTENNA: DELTA H/E/N' === $label) {
                $head['antennaHeight'] = (float) substr($line, 0, 14);
            } elseif ('SYS / # / OBS TYPES' === $label) {
                $types[$line[0]] = preg_split('/\s+/', trim(substr($line, 6, 54))) ?: [];
            } elseif (str_starts_with($line, '>')) {
                [$y, $mo, $d, $h, $mi, $s] = preg_split('/\s+/', trim(substr($line, 1, 28))) ?: [];
                $gps = gmmktime((int) $h, (int) $mi, 0, (int) $mo, (int) $d, (int) $y) - gmmktime(0, 0, 0, 1, 6, 1980) + (float) $s;
                $satellites = [];
                for ($n = (int) substr($line, 32, 3); $n > 0; --$n) {
                    $row = $lines[++$k];
                    $own = [];
                    foreach ($types[$row[0]] as $i => $type) {
                        $cell = trim(substr($row, 3 + 16 * $i, 14));
                        if ('' !== $cell) {
                            $own[$type] = (float) $cell;
                        }
                        if ('1' === ($row[17 + 16 * $i] ?? ' ')) {
                            $own['lost'] = true;
                        }
                    }
                    $satellites[substr($row, 0, 3)] = $own;
                }
                $out[] = json_encode(['record' => 'epoch', 'gps' => $gps, 'satellites' => $satellites], \JSON_THROW_ON_ERROR);
            }
        }
        $records = preg_split('/^(?=[GEC]\d\d )/m', substr($navigation, (int) strpos($navigation, "END OF HEADER\n") + 14)) ?: [];
        foreach (array_filter($records) as $record) {
            $out[] = json_encode(['record' => 'ephemeris', 'rinex' => $record], \JSON_THROW_ON_ERROR);
        }

        return json_encode($head, \JSON_THROW_ON_ERROR)."\n".implode("\n", $out)."\n";
    }
}
