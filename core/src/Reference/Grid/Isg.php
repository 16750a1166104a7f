<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

/**
 * Text geoid grids of the International Service for the Geoid (ISG format 1.0 and 2.0): a head of "key : value" or
 * "key = value" lines, then rows from north to south. Limits are those of the nodes; files whose limits are cell
 * edges (so many steps as rows) are recognised and moved half a step inward.
 */
final class Isg
{
    /** @throws UnreadableGrid */
    public static function read(string $name, string $text): GeoidGrid
    {
        $end = strpos($text, 'end_of_head');
        if (false === $end) {
            throw new UnreadableGrid(\sprintf('%s: an ISG file has a line end_of_head after its head; this one has none', $name));
        }
        $head = [];
        foreach (explode("\n", substr($text, 0, $end)) as $line) {
            if (1 === preg_match('/^\s*([A-Za-z][A-Za-z \/()]*?)\s*[:=]\s*(.*?)\s*$/', $line, $match)) {
                $head[strtolower($match[1])] = $match[2];
            }
        }
        if (isset($head['data ordering']) && 1 !== preg_match('/^N-to-S.*W-to-E/i', $head['data ordering'])) {
            throw new UnreadableGrid(\sprintf('%s: data ordering "%s" is not read, only N-to-S, W-to-E', $name, $head['data ordering']));
        }
        if (isset($head['data type']) && !\in_array(strtolower($head['data type']), ['geoid', 'quasi-geoid', 'quasigeoid'], true)) {
            throw new UnreadableGrid(\sprintf('%s holds "%s", not geoid heights', $name, $head['data type']));
        }
        if (isset($head['coord type']) && 'geodetic' !== strtolower($head['coord type'])) {
            throw new UnreadableGrid(\sprintf('%s: coordinates of type "%s" are not read, only geodetic', $name, $head['coord type']));
        }
        $number = static function (string $key) use ($head, $name): float {
            $value = $head[$key] ?? throw new UnreadableGrid(\sprintf('%s: its head has no line "%s"', $name, $key));
            if (1 === preg_match('/^(-?)\s*(\d+)°\s*(\d+)\'\s*([\d.]+)"/u', $value, $m)) {
                return ('-' === $m[1] ? -1.0 : 1.0) * ((float) $m[2] + (float) $m[3] / 60.0 + (float) $m[4] / 3600.0);
            }
            if (!is_numeric($value)) {
                throw new UnreadableGrid(\sprintf('%s: "%s = %s" is not a number', $name, $key, $value));
            }

            return (float) $value;
        };
        $rows = (int) $number('nrows');
        $columns = (int) $number('ncols');
        $south = $number('lat min');
        $north = $number('lat max');
        $west = $number('lon min');
        $east = $number('lon max');
        $dLat = $number('delta lat');
        $dLon = $number('delta lon');
        $empty = is_numeric($head['nodata'] ?? null) ? (float) $head['nodata'] : null;
        if ($rows < 2 || $columns < 2 || $dLat <= 0.0 || $dLon <= 0.0) {
            throw new UnreadableGrid(\sprintf('%s: a geoid grid needs two rows and two columns at least, and positive steps', $name));
        }
        if (abs($south + $rows * $dLat - $north) < 0.3 * $dLat) {
            $south += $dLat / 2.0;
        } elseif (abs($south + ($rows - 1) * $dLat - $north) > 0.3 * $dLat) {
            throw new UnreadableGrid(\sprintf('%s: %d rows of %s degrees do not reach from %s to %s', $name, $rows, $dLat, $south, $north));
        } else {
            // Steps are printed rounded; the limits are the better word.
            $dLat = ($north - $south) / ($rows - 1);
        }
        if (abs($west + $columns * $dLon - $east) < 0.3 * $dLon) {
            $west += $dLon / 2.0;
        } elseif (abs($west + ($columns - 1) * $dLon - $east) > 0.3 * $dLon) {
            throw new UnreadableGrid(\sprintf(
                '%s: %d columns of %s degrees do not reach from %s to %s', $name, $columns, $dLon, $west, $east,
            ));
        } else {
            $dLon = ($east - $west) / ($columns - 1);
        }
        $start = strpos($text, "\n", $end);
        $values = preg_split('/\s+/', trim(substr($text, false === $start ? \strlen($text) : $start)), -1, \PREG_SPLIT_NO_EMPTY) ?: [];
        if (\count($values) !== $rows * $columns) {
            throw new UnreadableGrid(\sprintf(
                '%s holds %d values where %d rows of %d need %d; is it cut short?', $name, \count($values), $rows,
                $columns, $rows * $columns,
            ));
        }
        $packed = [];
        foreach (array_chunk($values, $columns) as $r => $row) {
            foreach ($row as $c => $value) {
                if (!is_numeric($value)) {
                    throw new UnreadableGrid(\sprintf('%s: value %d of row %d, "%s", is not a number', $name, $c + 1, $r + 1, $value));
                }
                $row[$c] = null !== $empty && abs((float) $value - $empty) < 1e-4 ? GeoidGrid::EMPTY : (float) $value;
            }
            $packed[] = pack('G*', ...$row);
        }

        return new GeoidGrid(
            $name, $south, $west, $dLat, $dLon, $rows, $columns, implode('', array_reverse($packed)),
            $head['ref ellipsoid'] ?? '',
        );
    }

    /** Version 1.0, geoid heights in metres to 0.1 mm. */
    public static function write(GeoidGrid $grid): string
    {
        $lines = [
            'begin_of_head ================================================',
            'model name     : '.$grid->name,
            'model type     : geoid extract',
            'units          : meters',
            'reference      : '.('' === $grid->ellipsoid ? 'WGS84' : $grid->ellipsoid),
            \sprintf('lat min        = %.9f', $grid->south),
            \sprintf('lat max        = %.9f', $grid->north()),
            \sprintf('lon min        = %.9f', $grid->west),
            \sprintf('lon max        = %.9f', $grid->east()),
            \sprintf('delta lat      = %.12f', $grid->dLat),
            \sprintf('delta lon      = %.12f', $grid->dLon),
            'nrows          = '.$grid->rows,
            'ncols          = '.$grid->columns,
            'nodata         = -9999.0000',
            'ISG format     = 1.0',
            'end_of_head ==================================================',
        ];
        for ($r = $grid->rows - 1; $r >= 0; --$r) {
            $row = [];
            for ($c = 0; $c < $grid->columns; ++$c) {
                $row[] = \sprintf('%10.4F', $grid->node($r, $c) ?? -9999.0);
            }
            $lines[] = implode(' ', $row);
        }

        return implode("\n", $lines)."\n";
    }

    /** Bytes an ISG file of so many nodes takes, the head taken as 700. */
    public static function size(int $rows, int $columns): int
    {
        return 700 + $rows * $columns * 11;
    }
}
