<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Gnss\GpsTime;

/** Writes RINEX observation files 3.04 and 2.11 (Gurtner and Estey 2007; IGS 2018). */
final class ObservationWriter
{
    public const VERSIONS = ['3.04', '2.11'];

    /** Types of version 2 for the codes of version 3; tracking modes are lost there. */
    private const VERSION_2 = ['C1C' => 'C1', 'C1W' => 'P1', 'C1P' => 'P1', 'C2W' => 'P2', 'C2P' => 'P2'];

    /** @var list<string> what the version asked for cannot hold */
    public array $lost = [];

    private string $text = '';

    public function write(ObservationFile $file, string $version, string $program = 'Mensura', ?\DateTimeImmutable $at = null): string
    {
        $isShort = '2.11' === $version;
        $this->text = '';
        $this->lost = [];
        $systems = array_values(array_unique(array_map(static fn (string $s): string => $s[0], $file->satellite)));
        $letter = 1 === \count($systems) ? $systems[0] : 'M';
        $this->head(\sprintf('%9s%11s%-20s%-20s', $version, '', 'OBSERVATION DATA', $letter), 'RINEX VERSION / TYPE');
        $stamp = null === $at ? '' : $at->setTimezone(new \DateTimeZone('UTC'))->format('Ymd His').' UTC';
        $this->head(\sprintf('%-20.20s%-20s%-20s', $program, '', $stamp), 'PGM / RUN BY / DATE');
        if ('' !== $file->marker) {
            $this->head($file->marker, 'MARKER NAME');
        }
        $this->head(\sprintf('%-20s%-20.20s%-20s', '', $file->receiverType, ''), 'REC # / TYPE / VERS');
        $this->head(\sprintf('%-20s%-20.20s', '', $file->antennaType), 'ANT # / TYPE');
        if (null !== $file->approximate) {
            $this->head(\sprintf('%14.4F%14.4F%14.4F', ...$file->approximate), 'APPROX POSITION XYZ');
        }
        $this->head(\sprintf('%14.4F%14.4F%14.4F', ...$file->antennaOffset), 'ANTENNA: DELTA H/E/N');
        $places = $isShort ? $this->shortTypes($file, $systems) : $this->longTypes($file, $systems);
        if (null !== $interval = $file->interval()) {
            $this->head(\sprintf('%10.3F', $interval), 'INTERVAL');
        }
        foreach (['TIME OF FIRST OBS' => 0, 'TIME OF LAST OBS' => \count($file->times) - 1] as $label => $k) {
            [$y, $mo, $d, $h, $mi, $s] = self::civil($file->times[$k]);
            $this->head(\sprintf('%6d%6d%6d%6d%6d%13.7F     GPS', $y, $mo, $d, $h, $mi, $s), $label);
        }
        $this->head('', 'END OF HEADER');
        foreach ($file->times as $k => $time) {
            $this->epoch($file, $k, self::civil($time), $places, $isShort);
        }

        return $this->text;
    }

    private function head(string $text, string $label): void
    {
        $this->text .= rtrim(\sprintf('%-60.60s%s', $text, $label))."\n";
    }

    /**
     * @param list<string> $systems
     *
     * @return array<string, list<?int>> by system the places of the values in the order they are written
     */
    private function longTypes(ObservationFile $file, array $systems): array
    {
        $places = [];
        foreach ($systems as $system) {
            $types = $file->types[$system] ?? [];
            foreach (array_chunk($types, 13) as $i => $some) {
                $begin = 0 === $i ? \sprintf('%s  %3d', $system, \count($types)) : '      ';
                $this->head($begin.' '.implode(' ', $some), 'SYS / # / OBS TYPES');
            }
            $places[$system] = array_keys($types);
        }

        return $places;
    }

    /**
     * One list for all systems: the first mode of each kind and band.
     *
     * @param list<string> $systems
     *
     * @return array<string, list<?int>>
     */
    private function shortTypes(ObservationFile $file, array $systems): array
    {
        $columns = [];
        foreach ($systems as $system) {
            foreach ($file->types[$system] ?? [] as $p => $type) {
                $short = self::VERSION_2[$type] ?? substr($type, 0, 2);
                if (isset($columns[$short][$system])) {
                    $this->lost[] = \sprintf('%s of %s: version 2.11 has one %s only', $type, $system, $short);
                    continue;
                }
                $columns[$short][$system] = $p;
            }
        }
        foreach (array_chunk(array_keys($columns), 9) as $i => $some) {
            $begin = 0 === $i ? \sprintf('%6d', \count($columns)) : '      ';
            $this->head($begin.implode('', array_map(static fn (string $t): string => '    '.$t, $some)), '# / TYPES OF OBSERV');
        }
        $places = [];
        foreach ($systems as $system) {
            $places[$system] = array_values(array_map(static fn (array $by): ?int => $by[$system] ?? null, $columns));
        }

        return $places;
    }

    /**
     * @param array{int, int, int, int, int, float} $civil
     * @param array<string, list<?int>>             $places
     */
    private function epoch(ObservationFile $file, int $k, array $civil, array $places, bool $isShort): void
    {
        [$y, $mo, $d, $h, $mi, $s] = $civil;
        $from = $file->epochStart[$k];
        $to = $file->epochStart[$k + 1];
        $satellites = \array_slice($file->satellite, $from, $to - $from);
        if ($isShort) {
            foreach (array_chunk($satellites, 12) as $i => $some) {
                $begin = 0 === $i
                    ? \sprintf(
                        ' %02d %2d %2d %2d %2d%11.7F  0%3d', $y % 100, $mo, $d, $h, $mi, $s, \count($satellites),
                    ) : str_repeat(' ', 32);
                $this->text .= $begin.implode('', $some)."\n";
            }
        } else {
            $this->text .= \sprintf("> %4d %02d %02d %02d %02d%11.7F  0%3d\n", $y, $mo, $d, $h, $mi, $s, \count($satellites));
        }
        for ($i = $from; $i < $to; ++$i) {
            $satellite = $file->satellite[$i];
            $cells = [];
            foreach ($places[$satellite[0]] as $p) {
                $value = null === $p ? \NAN : $file->value[$file->valueStart[$i] + $p];
                $lost = null === $p ? 0 : $file->lossOfLock[$file->valueStart[$i] + $p];
                $cells[] = is_nan($value) ? str_repeat(' ', 16) : \sprintf('%14.3F%s ', $value, 0 === $lost ? ' ' : $lost);
            }
            if (!$isShort) {
                $this->text .= rtrim($satellite.implode('', $cells))."\n";
                continue;
            }
            foreach (array_chunk($cells, 5) as $some) {
                $this->text .= rtrim(implode('', $some))."\n";
            }
        }
    }

    /** @return array{int, int, int, int, int, float} */
    public static function civil(GpsTime $time): array
    {
        // To the tenth of a microsecond that is written, so that 59.99999999 is no 60.
        $seconds = round($time->seconds, 7);
        $whole = (int) floor($seconds);
        $unix = (int) gmmktime(0, 0, 0, 1, 6, 1980) + $time->week * 604800 + $whole;
        [$y, $mo, $d, $h, $mi, $s] = array_map(intval(...), explode(' ', gmdate('Y m d H i s', $unix)));

        return [$y, $mo, $d, $h, $mi, $s + ($seconds - $whole)];
    }
}
