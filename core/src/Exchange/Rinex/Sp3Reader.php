<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Fault\UnusableInput;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\PreciseOrbits;

/** Precise orbits in SP3-c and SP3-d (Hilla 2010, 2016): position and clock records; velocities are passed over. */
final class Sp3Reader
{
    /** Clocks that are not known are written as nines, microseconds. */
    private const NO_CLOCK = 999999.0;

    /** @throws UnusableInput naming file and line */
    public static function read(string $bytes, string $name, PreciseOrbits $orbits): void
    {
        $lines = explode("\n", $bytes);
        if (1 !== preg_match('/^#[a-d][PV]/', $lines[0])) {
            throw new UnusableInput("$name line 1", 'is not SP3: the first line begins with # and the letter of a version');
        }
        $system = '';
        $time = null;
        $count = 0;
        foreach ($lines as $k => $line) {
            if (str_starts_with($line, '%c') && '' === $system) {
                $system = strtoupper(substr($line, 9, 3));
                if (!\in_array($system, ['GPS', 'GAL', 'BDT', 'CCC', ''], true)) {
                    throw new UnusableInput(
                        \sprintf('%s line %d', $name, $k + 1),
                        \sprintf('its time system is %s; GPS time is needed', $system),
                    );
                }
            }
            if (str_starts_with($line, '*')) {
                $cells = preg_split('/\s+/', trim(substr($line, 1))) ?: [];
                if (6 !== \count($cells) || 6 !== \count(array_filter($cells, is_numeric(...)))) {
                    throw new UnusableInput(\sprintf('%s line %d', $name, $k + 1), 'the time of the epoch cannot be read');
                }
                $time = GpsTime::civil(
                    (int) $cells[0], (int) $cells[1], (int) $cells[2], (int) $cells[3], (int) $cells[4],
                    (float) $cells[5] + ('BDT' === $system ? 14.0 : 0.0),
                );
            }
            if (!str_starts_with($line, 'P') || null === $time) {
                continue;
            }
            $values = [];
            foreach ([4, 18, 32, 46] as $at) {
                $cell = trim(substr($line, $at, 14));
                $values[] = is_numeric($cell) ? (float) $cell : (46 === $at ? self::NO_CLOCK : throw new UnusableInput(
                    \sprintf('%s line %d', $name, $k + 1), \sprintf('"%s" is not a coordinate', mb_scrub($cell)),
                ));
            }
            if (0.0 === $values[0] && 0.0 === $values[1] && 0.0 === $values[2]) {
                continue; // a position that is not known is written as noughts
            }
            ++$count;
            $satellite = (' ' === $line[1] ? 'G' : $line[1]).\sprintf('%02d', (int) substr($line, 2, 2));
            $orbits->add(
                $satellite, $time, 1000.0 * $values[0], 1000.0 * $values[1], 1000.0 * $values[2],
                $values[3] >= self::NO_CLOCK ? null : 1e-6 * $values[3],
            );
        }
        if (0 === $count) {
            throw new UnusableInput($name, 'holds no position of a satellite');
        }
    }
}
