<?php

declare(strict_types=1);

namespace Mensura\Exchange\Antex;

use Mensura\Fault\UnusableInput;
use Mensura\Gnss\AntennaModel;

/** Calibrations of receiver antennas in ANTEX 1.4; those of satellites are passed over, variations are taken without azimuth. */
final class AntexReader
{
    private const LABEL = 60;

    /**
     * @return array<string, AntennaModel> by type, with its radome
     *
     * @throws UnusableInput naming file and line
     */
    public static function read(string $bytes, string $name): array
    {
        $lines = explode("\n", $bytes);
        if ('ANTEX VERSION / SYST' !== trim(substr($lines[0], self::LABEL, 20))) {
            throw new UnusableInput("$name line 1", 'is not ANTEX: the first line does not end on ANTEX VERSION / SYST');
        }
        $models = $offset = $variation = [];
        $type = $frequency = '';
        $zenith = [0.0, 90.0, 5.0];
        $isSatellite = false;
        foreach ($lines as $k => $line) {
            $where = \sprintf('%s line %d', $name, $k + 1);
            switch (trim(substr($line, self::LABEL, 20))) {
                case 'START OF ANTENNA':
                    [$type, $frequency, $offset, $variation] = ['', '', [], []];
                    break;
                case 'TYPE / SERIAL NO':
                    $type = self::plain(substr($line, 0, 20));
                    $isSatellite = '' !== trim(substr($line, 20, 20)) && '' !== trim(substr($line, 40, 10));
                    break;
                case 'ZEN1 / ZEN2 / DZEN':
                    $zenith = self::numbers(substr($line, 2, 18), 6, $where);
                    break;
                case 'START OF FREQUENCY':
                    $frequency = trim(substr($line, 3, 3));
                    break;
                case 'NORTH / EAST / UP':
                    [$n, $e, $u] = self::numbers(substr($line, 0, 30), 10, $where) + [0.0, 0.0, 0.0];
                    $offset[$frequency] = [0.001 * $n, 0.001 * $e, 0.001 * $u];
                    break;
                case 'END OF FREQUENCY':
                    $frequency = '';
                    break;
                case 'END OF ANTENNA':
                    if (!$isSatellite && '' !== $type && [] !== $offset) {
                        $models[$type] = new AntennaModel($type, $offset, $variation, $zenith[0], $zenith[2] ?? 5.0);
                    }
                    break;
                default:
                    if ('' !== $frequency && 'NOAZI' === trim(substr($line, 0, 8))) {
                        $variation[$frequency] = array_map(
                            static fn (float $mm): float => 0.001 * $mm, self::numbers(rtrim(substr($line, 8)), 8, $where),
                        );
                    }
            }
        }
        if ([] === $models) {
            throw new UnusableInput($name, 'holds no calibration of a receiver antenna');
        }

        return $models;
    }

    /** Name and radome with one blank between: they stand in columns 1 to 16 and 17 to 20, as in RINEX. */
    public static function plain(string $type): string
    {
        return strtoupper(trim(trim(substr($type, 0, 16)).' '.trim(substr($type, 16, 4))));
    }

    /**
     * @param positive-int $width
     *
     * @return list<float>
     */
    private static function numbers(string $text, int $width, string $where): array
    {
        $values = [];
        foreach (str_split($text, $width) as $cell) {
            if ('' === trim($cell)) {
                continue;
            }
            if (!is_numeric(trim($cell))) {
                throw new UnusableInput($where, \sprintf('"%s" is not a number', mb_scrub(trim($cell))));
            }
            $values[] = (float) $cell;
        }

        return $values;
    }
}
