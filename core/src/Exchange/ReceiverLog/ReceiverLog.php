<?php

declare(strict_types=1);

namespace Mensura\Exchange\ReceiverLog;

use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\Recording;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\GpsTime;

/**
 * The log of the simulated receiver that comes with Mensura: a JSON object a line, written as it goes, so that a battery that
 * gives out costs the last line only. docs/formats.md, "Receiver log".
 */
final class ReceiverLog
{
    public const FORMAT = 'mensura-receiver-log/1';

    /** @throws UnusableInput naming the line */
    public static function read(string $bytes, string $name): Recording
    {
        $recording = new Recording('receiver-log');
        $lines = explode("\n", $bytes);
        $last = array_key_last(array_filter($lines, static fn (string $l): bool => '' !== trim($l)));
        $navigation = '';
        foreach ($lines as $k => $line) {
            if ('' === trim($line)) {
                continue;
            }
            $data = json_decode($line, true, 16);
            if (!\is_array($data)) {
                if ($k === $last && $k > 0) {
                    $recording->warnings[] = \sprintf('line %d, the last, is cut off and left out', $k + 1);
                    continue;
                }
                throw new UnusableInput(
                    \sprintf('%s line %d', $name, $k + 1), 0 === $k ? 'is no receiver log' : 'is not JSON; the log is damaged there',
                );
            }
            if (0 === $k) {
                self::begin($recording, $data, $name);
                continue;
            }
            $kind = \is_string($data['record'] ?? null) ? $data['record'] : '';
            $recording->messages[$kind] = ($recording->messages[$kind] ?? 0) + 1;
            if ('epoch' === $kind) {
                self::epoch($recording, $data, \sprintf('%s line %d', $name, $k + 1));
            } elseif ('ephemeris' === $kind && \is_string($data['rinex'] ?? null)) {
                $navigation .= $data['rinex'];
            }
        }
        if ('' !== $navigation) {
            $head = str_pad(
                '     3.04           N: GNSS NAV DATA    M: MIXED', 60,
            )."RINEX VERSION / TYPE\n".str_repeat(' ', 60)."END OF HEADER\n";
            foreach (NavigationReader::read($head.$navigation, "$name (ephemerides)")->ephemerides as $e) {
                $recording->ephemerides[$e->satellite.' '.$e->orbitTime] = $e;
            }
        }
        $recording->finish();

        return $recording;
    }

    /** @param array<mixed> $data */
    private static function begin(Recording $recording, array $data, string $name): void
    {
        if (self::FORMAT !== ($data['format'] ?? null)) {
            throw new UnusableInput("$name line 1", \sprintf('is no receiver log: "format" is not "%s"', self::FORMAT));
        }
        $text = static fn (string $key): string => \is_string($data[$key] ?? null) ? $data[$key] : '';
        $file = $recording->file;
        $file->marker = $text('marker');
        $file->receiverType = $text('receiver');
        $file->antennaType = $text('antenna');
        $height = $data['antennaHeight'] ?? null;
        $file->antennaOffset = [is_numeric($height) ? (float) $height : 0.0, 0.0, 0.0];
        $place = $data['position'] ?? null;
        if (\is_array($place) && 3 === \count(array_filter($place, is_numeric(...)))) {
            $file->approximate = [(float) $place[0], (float) $place[1], (float) $place[2]];
        }
    }

    /** @param array<mixed> $data */
    private static function epoch(Recording $recording, array $data, string $where): void
    {
        if (!is_numeric($data['gps'] ?? null) || !\is_array($data['satellites'] ?? null)) {
            throw new UnusableInput($where, 'an epoch has "gps", seconds since 1980-01-06, and "satellites"');
        }
        $values = $lost = [];
        foreach ($data['satellites'] as $satellite => $own) {
            if (!\is_array($own) || 1 !== preg_match('/^[GEC][0-9]{2}$/', (string) $satellite)) {
                throw new UnusableInput($where, \sprintf('"%s" is no satellite', mb_scrub((string) $satellite)));
            }
            foreach ($own as $type => $value) {
                if ('lost' === $type) {
                    continue;
                }
                if (!is_numeric($value)) {
                    throw new UnusableInput($where, \sprintf('%s of %s is not a number', mb_scrub((string) $type), $satellite));
                }
                $values[(string) $satellite][(string) $type] = (float) $value;
                if ('L' === ((string) $type)[0] && true === ($own['lost'] ?? null)) {
                    $lost[(string) $satellite][(string) $type] = 1;
                }
            }
        }
        $recording->add(GpsTime::after((float) $data['gps']), $values, $lost);
    }
}
