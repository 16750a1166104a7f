<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Fault\UnusableInput;
use Mensura\Gnss\GpsTime;

/**
 * RINEX observation files 2.11 (Gurtner and Estey 2007) and 3.02 to 3.05 (IGS 2020), read in one pass into flat lists.
 *
 * Observation codes of version 2 become those of version 3: C1 is C1C, P1 C1W, P2 C2W, C2 C2X, L1 L1C, L2 L2W, S1 S1C and so on.
 * Time tags of Galileo and BeiDou time are brought to GPS time; UTC-based time is refused.
 */
final class ObservationReader
{
    private const VERSION_2 = [
        'C1' => 'C1C', 'P1' => 'C1W', 'C2' => 'C2X', 'P2' => 'C2W', 'L1' => 'L1C', 'L2' => 'L2W', 'D1' => 'D1C', 'D2' => 'D2W',
        'S1' => 'S1C', 'S2' => 'S2W', 'C5' => 'C5X', 'L5' => 'L5X', 'D5' => 'D5X', 'S5' => 'S5X', 'C7' => 'C7X', 'L7' => 'L7X',
        'D7' => 'D7X', 'S7' => 'S7X', 'C8' => 'C8X', 'L8' => 'L8X', 'S8' => 'S8X', 'C6' => 'C6X', 'L6' => 'L6X', 'S6' => 'S6X',
    ];

    /** Systems whose satellites are kept. */
    private const KEPT = ['G' => true, 'E' => true, 'C' => true];

    /** Types of marker that are on their way (RINEX 3.04, table A2). */
    private const MOVING = ['SPACEBORNE', 'AIRBORNE', 'WATER_CRAFT', 'GROUND_CRAFT', 'FLOATING_BUOY', 'BALLISTIC', 'ANIMAL', 'HUMAN'];

    /** BeiDou time is 14 seconds behind GPS time, Galileo time with it to nanoseconds. */
    private const AHEAD = ['GPS' => 0.0, 'GAL' => 0.0, 'BDT' => 14.0, 'QZS' => 0.0];

    private ObservationFile $file;
    private HeaderLines $lines;
    private float $ahead = 0.0;

    /** @var array<string, array<string, float>> factor of the values by system and type (SYS / SCALE FACTOR) */
    private array $scale = [];

    /** @throws UnusableInput naming file and line */
    public static function read(string $bytes, string $name): ObservationFile
    {
        return (new self())->file($bytes, $name);
    }

    private function file(string $bytes, string $name): ObservationFile
    {
        $this->file = new ObservationFile();
        $this->lines = new HeaderLines($bytes, $name);
        if ('O' !== $this->lines->type) {
            throw $this->lines->fault(\sprintf('is a RINEX file of type %s, not of observations', $this->lines->type));
        }
        $this->file->version = $this->lines->version;
        $this->header();
        if ([] === $this->file->types) {
            throw $this->lines->fault('names no observation types in its header');
        }
        if ($this->lines->version < 3.0) {
            $this->epochs2();
        } else {
            $this->epochs3();
        }
        if ([] === $this->file->times) {
            throw $this->lines->fault('holds no epoch of observations');
        }

        return $this->file;
    }

    /** Until END OF HEADER; also the header lines that an event brings in the middle of the file. */
    private function header(int $most = \PHP_INT_MAX): void
    {
        $f = $this->file;
        $system = '';
        $left = 0;
        for ($k = 0; $k < $most; ++$k) {
            $line = $this->lines->next();
            if (null === $line) {
                throw $this->lines->fault('ends within its header');
            }
            $label = trim(substr($line, 60, 20));
            switch ($label) {
                case 'END OF HEADER':
                    if (\PHP_INT_MAX === $most) {
                        return;
                    }
                    break;
                case 'MARKER NAME':
                    $f->marker = trim(substr($line, 0, 60));
                    break;
                case 'REC # / TYPE / VERS':
                    $f->receiverType = trim(substr($line, 20, 20));
                    break;
                case 'MARKER TYPE':
                    $f->moves = \in_array(strtoupper(trim(substr($line, 0, 20))), self::MOVING, true);
                    break;
                case 'ANT # / TYPE':
                    $f->antennaType = trim(substr($line, 20, 20));
                    break;
                case 'APPROX POSITION XYZ':
                    $f->approximate = $this->three($line, 'the approximate position');
                    break;
                case 'ANTENNA: DELTA H/E/N':
                    $f->antennaOffset = $this->three($line, 'the antenna height');
                    break;
                case 'TIME OF FIRST OBS':
                    $stated = strtoupper(trim(substr($line, 48, 3)));
                    $f->timeSystem = '' === $stated ? ['R' => 'GLO', 'E' => 'GAL', 'C' => 'BDT'][$this->lines->system] ?? 'GPS' : $stated;
                    if (!isset(self::AHEAD[$f->timeSystem])) {
                        throw $this->lines->fault(\sprintf(
                            'its time system is %s, which follows UTC; observations in GPS, GAL or BDT time are processed', $f->timeSystem,
                        ));
                    }
                    $this->ahead = self::AHEAD[$f->timeSystem];
                    break;
                case '# / TYPES OF OBSERV':
                    $left = '' === trim(substr($line, 0, 6)) ? $left : (int) substr($line, 0, 6);
                    $types = '' === trim(substr($line, 0, 6)) ? $f->types['G'] ?? [] : [];
                    foreach (str_split(substr($line, 6, 54), 6) as $cell) {
                        if ('' !== trim($cell) && \count($types) < $left) {
                            $types[] = self::VERSION_2[strtoupper(trim($cell))] ?? strtoupper(trim($cell));
                        }
                    }
                    foreach (array_keys(self::KEPT) as $each) {
                        $f->types[$each] = $types;
                    }
                    break;
                case 'SYS / # / OBS TYPES':
                    if (' ' !== $line[0]) {
                        $system = $line[0];
                        $left = (int) substr($line, 3, 3);
                        $f->types[$system] = [];
                    }
                    foreach (str_split(substr($line, 6, 54), 4) as $cell) {
                        if ('' !== trim($cell) && \count($f->types[$system] ?? []) < $left) {
                            $type = strtoupper(trim($cell));
                            // Version 3.02 wrote B1 of BeiDou as band 1.
                            $isOld = 'C' === $system && $this->lines->version < 3.03 && '1' === $type[1];
                            $f->types[$system][] = $isOld ? strtr($type, '1', '2') : $type;
                        }
                    }
                    break;
                case 'SYS / SCALE FACTOR':
                    $factor = (float) substr($line, 2, 4);
                    $named = array_filter(
                        array_map(trim(...), str_split(substr($line, 10, 48), 4)),
                        static fn (string $t): bool => '' !== $t,
                    );
                    // Without a list it stands for every type of the system.
                    foreach ($factor > 0.0 ? ([] === $named ? $f->types[$line[0]] ?? [] : $named) : [] as $type) {
                        $this->scale[$line[0]][$type] = $factor;
                    }
                    break;
            }
        }
    }

    /** @return array{float, float, float} */
    private function three(string $line, string $what): array
    {
        $values = [];
        foreach ([0, 14, 28] as $at) {
            $cell = trim(substr($line, $at, 14));
            if (!is_numeric($cell)) {
                throw $this->lines->fault(\sprintf('%s is not three numbers', $what));
            }
            $values[] = (float) $cell;
        }

        return [$values[0], $values[1], $values[2]];
    }

    private function epochs3(): void
    {
        $f = $this->file;
        while (null !== $line = $this->lines->next()) {
            if ('' === trim($line)) {
                continue;
            }
            if ('>' !== $line[0]) {
                throw $this->lines->fault('an epoch record begins with >; is a line missing above?');
            }
            $flag = (int) substr($line, 31, 1);
            $count = (int) substr($line, 32, 3);
            if ($flag > 1) {
                $this->event($flag, $count);
                continue;
            }
            $time = $this->time((int) substr($line, 2, 4), substr($line, 7, 22), false);
            if (!$this->begin($time)) {
                for ($k = 0; $k < $count; ++$k) {
                    $this->lines->next();
                }
                continue;
            }
            for ($k = 0; $k < $count; ++$k) {
                $row = $this->lines->next();
                if (null === $row || '' === trim($row)) {
                    $this->truncated();

                    return;
                }
                $this->row3($row);
            }
            $f->epochStart[] = \count($f->satellite);
        }
    }

    private function row3(string $row): void
    {
        $f = $this->file;
        $system = $row[0];
        $name = ' ' === $row[1] ? $system.\sprintf('%02d', (int) substr($row, 1, 2)) : substr($row, 0, 3);
        $types = $f->types[$system] ?? null;
        if (!isset(self::KEPT[$system])) {
            $f->otherSatellites[$name] = true;

            return;
        }
        if (null === $types) {
            throw $this->lines->fault(\sprintf('satellite %s is of a system whose observation types the header does not name', $name));
        }
        $f->satellite[] = $name;
        $f->valueStart[] = \count($f->value);
        $scales = $this->scale[$system] ?? [];
        $at = 3;
        foreach ($types as $type) {
            $cell = substr($row, $at, 14);
            if (is_numeric($cell)) {
                $value = (float) $cell;
                // An observation of nothing is written as nought by some.
                $f->value[] = 0.0 === $value ? \NAN : ([] === $scales ? $value : $value / ($scales[$type] ?? 1.0));
                $f->lossOfLock[] = (int) ($row[$at + 14] ?? 0);
            } else {
                $this->nothing($cell);
            }
            $at += 16;
        }
    }

    private function epochs2(): void
    {
        $f = $this->file;
        $types = $f->types['G'];
        $perSatellite = (int) ceil(\count($types) / 5.0);
        while (null !== $line = $this->lines->next()) {
            if ('' === trim($line)) {
                continue;
            }
            $flag = (int) substr($line, 28, 1);
            $count = (int) substr($line, 29, 3);
            if ($flag > 1) {
                $this->event($flag, $count);
                continue;
            }
            $time = $this->time((int) substr($line, 1, 2), substr($line, 4, 22), true);
            $names = '';
            for ($k = 0; $k < $count; ++$k) {
                if ($k > 0 && 0 === $k % 12) {
                    $line = $this->lines->next() ?? throw $this->lines->fault('ends within an epoch record');
                }
                $names .= str_pad(substr($line, 32 + 3 * ($k % 12), 3), 3);
            }
            $isNew = $this->begin($time);
            for ($k = 0; $k < $count; ++$k) {
                $row = '';
                for ($l = 0; $l < $perSatellite; ++$l) {
                    $next = $this->lines->next();
                    if (null === $next) {
                        if ($isNew) {
                            $this->truncated();
                        }

                        return;
                    }
                    $row .= str_pad(substr($next, 0, 80), 80);
                }
                if (!$isNew) {
                    continue;
                }
                $system = ' ' === $names[3 * $k] ? 'G' : $names[3 * $k];
                $name = $system.\sprintf('%02d', (int) substr($names, 3 * $k + 1, 2));
                if (!isset(self::KEPT[$system])) {
                    $f->otherSatellites[$name] = true;
                    continue;
                }
                $f->satellite[] = $name;
                $f->valueStart[] = \count($f->value);
                foreach (array_keys($types) as $t) {
                    $cell = substr($row, 16 * $t, 14);
                    if (is_numeric($cell)) {
                        $f->value[] = 0.0 === (float) $cell ? \NAN : (float) $cell;
                        $f->lossOfLock[] = (int) $row[16 * $t + 14];
                    } else {
                        $this->nothing($cell);
                    }
                }
            }
            if ($isNew) {
                $f->epochStart[] = \count($f->satellite);
            }
        }
    }

    /** A cell that holds no number must be blank. */
    private function nothing(string $cell): void
    {
        if ('' !== trim($cell)) {
            throw $this->lines->fault(\sprintf('"%s" is not a number', mb_scrub(trim($cell))));
        }
        $this->file->value[] = \NAN;
        $this->file->lossOfLock[] = 0;
    }

    private function time(int $year, string $rest, bool $isShort): GpsTime
    {
        $year = $isShort ? $year + ($year < 80 ? 2000 : 1900) : $year;
        $cells = preg_split('/\s+/', trim($rest)) ?: [];
        if (5 !== \count($cells) || 5 !== \count(array_filter($cells, is_numeric(...))) || $cells[0] < 1 || $cells[0] > 12
            || $cells[1] < 1 || $cells[1] > 31) {
            throw $this->lines->fault('the time of the epoch cannot be read');
        }

        return GpsTime::civil($year, (int) $cells[0], (int) $cells[1], (int) $cells[2], (int) $cells[3], (float) $cells[4] + $this->ahead);
    }

    /** @return bool false for an epoch that was there before */
    private function begin(GpsTime $time): bool
    {
        $f = $this->file;
        $last = $f->times[\count($f->times) - 1] ?? null;
        if (null !== $last && $time->since($last) < 1e-4) {
            $f->warnings[] = \sprintf(
                '%s line %d: an epoch %s; it is left out', $this->lines->name, $this->lines->number,
                $time->since($last) > -1e-4 ? 'is there twice' : 'lies before the one above it',
            );

            return false;
        }
        $f->times[] = $time;

        return true;
    }

    private function event(int $flag, int $count): void
    {
        if ($flag > 5) {
            for ($k = 0; $k < $count; ++$k) {
                $this->lines->next(); // cycle slip records: the slips are found anyway
            }

            return;
        }
        $marker = $this->file->marker;
        $offset = $this->file->antennaOffset;
        $this->header($count);
        $this->file->moves = $this->file->moves || 2 === $flag;
        if (2 === $flag || 3 === $flag || $marker !== $this->file->marker || $offset !== $this->file->antennaOffset) {
            $this->file->warnings[] = \sprintf(
                '%s line %d: %s; what follows is read as of the same occupation', $this->lines->name, $this->lines->number,
                2 === $flag ? 'the antenna moves from here on' : (3 === $flag ? 'a new occupation begins here' : 'the header changes here'),
            );
            $this->file->marker = $marker;
            $this->file->antennaOffset = $offset;
        }
    }

    /** The last epoch is cut off: what there is of it is left out. */
    private function truncated(): void
    {
        $f = $this->file;
        $start = $f->epochStart[\count($f->epochStart) - 1];
        $f->satellite = \array_slice($f->satellite, 0, $start);
        $f->value = \array_slice($f->value, 0, $f->valueStart[$start] ?? \count($f->value));
        $f->lossOfLock = \array_slice($f->lossOfLock, 0, \count($f->value));
        $f->valueStart = \array_slice($f->valueStart, 0, $start);
        array_pop($f->times);
        $f->warnings[] = \sprintf('%s line %d: the last epoch is cut off and left out', $this->lines->name, $this->lines->number);
    }
}
