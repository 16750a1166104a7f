<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\LinearAlgebra\Dense;
use Mensura\Quantity\Unit;

/**
 * Turns the rows of a mapped file into records in metres and degrees. A row that cannot be used is left out and named.
 */
final class RecordReader
{
    private const FARTHEST = 1e8;
    private const LONGEST_SIGHT = 5e4;

    /** @var list<Finding> */
    public array $findings = [];

    /** @var list<PointRecord|Pointing|VectorRecord> by the kind of the file */
    public array $records = [];

    public int $leftOut = 0;

    private int $line = 0;

    /** Sights whose zenith angle is of the other face than the one stated. */
    private int $otherFace = 0;

    /** Times that are not written as ISO 8601 writes them. */
    private int $otherTimes = 0;

    /** @var array{hi: list<int>, ht: list<int>} lines whose sight needs a height that is not there */
    private array $missing = ['hi' => [], 'ht' => []];

    /** @var list<string> */
    private array $row = [];

    /** @param array<string, string> $names */
    private function __construct(private readonly DelimitedTable $table, private readonly Mapping $mapping, private readonly array $names)
    {
    }

    /** @param array<string, string> $names what names of the file stand for, where that is known better than the file */
    public static function read(DelimitedTable $table, Mapping $mapping, array $names = []): self
    {
        $reader = new self($table, $mapping, $names);
        foreach ($mapping->missing() as $field) {
            $reader->findings[] = new Finding(Finding::ERROR, null, \sprintf('no column for %s; choose one', $field->label));
        }
        if ([] === $reader->findings) {
            $reader->rows();
        }

        return $reader;
    }

    private function rows(): void
    {
        $seen = [];
        $carried = ['station' => '', 'set' => '', 'hi' => null];
        foreach ($this->table->rows as $i => $row) {
            $this->row = $row;
            $this->line = $this->table->lines[$i];
            try {
                $record = match ($this->mapping->kind) {
                    FileKind::Control, FileKind::Points => $this->point(),
                    FileKind::Vectors => $this->vector(),
                    FileKind::TotalStation => $this->pointing($carried),
                    default => throw new \LogicException('Not a table.'),
                };
            } catch (RowFault $fault) {
                ++$this->leftOut;
                $this->findings[] = new Finding(Finding::ERROR, $this->line, $fault->getMessage());
                continue;
            }
            if (null === $record) {
                continue; // a setup line
            }
            if ($record instanceof PointRecord) {
                if (isset($seen[$record->name])) {
                    ++$this->leftOut;
                    $words = \sprintf('point "%s" is already on line %d; rename one of them', $record->name, $seen[$record->name]);
                    $this->findings[] = new Finding(Finding::ERROR, $this->line, $words);
                    continue;
                }
                $seen[$record->name] = $this->line;
            }
            $this->records[] = $record;
        }
        if ($this->otherFace > 0) {
            $words = '%d sight(s) state another face than their zenith angle shows; the zenith angle is followed';
            $this->findings[] = new Finding(Finding::WARNING, null, \sprintf($words, $this->otherFace));
        }
        if ($this->otherTimes > 0) {
            $words = '%d time(s) are left out: write date and time as 2031-05-02 09:15:00, UTC where no zone is said';
            $this->findings[] = new Finding(Finding::WARNING, null, \sprintf($words, $this->otherTimes));
        }
        if (FileKind::TotalStation === $this->mapping->kind) {
            $pointings = array_values(array_filter($this->records, static fn (object $r): bool => $r instanceof Pointing));
            array_push($this->findings, ...BookDoubts::of($pointings, $this->missing, $this->mapping->units['zenith'] ?? null));
        }
    }

    private function point(): PointRecord
    {
        $held = strtolower($this->text('held'));
        $components = match (true) {
            '' === $held, \in_array($held, ['no', 'n', '0', 'false', 'none', '-'], true) => '',
            \in_array($held, ['yes', 'y', '1', 'true', 'all', 'enh', '3d'], true) => 'enh',
            \in_array($held, ['en', 'plan', '2d'], true) => 'en',
            \in_array($held, ['h', 'height', '1d'], true) => 'h',
            default => throw new RowFault(\sprintf('held: "%s" is not understood; write enh, en, h or no', $held)),
        };
        $sd = [];
        foreach (['sd_e', 'sd_n', 'sd_h'] as $key) {
            $value = $this->number($key);
            if (null !== $value && $value < 0.0) {
                throw new RowFault(\sprintf('%s: a standard deviation of %s cannot be', $key, $value));
            }
            $sd[] = null === $value || 0.0 === $value ? null : $value;
        }
        $geographic = $this->mapping->isGeographic();
        $name = $this->name('name');
        $e = $geographic ? null : $this->needed('e', self::FARTHEST);
        $n = $geographic ? null : $this->needed('n', self::FARTHEST);
        $lat = $geographic ? $this->graticule('lat', 'NS', 90.0) : null;
        $lon = $geographic ? $this->graticule('lon', 'EW', 360.0) : null;
        $code = $this->text('code');
        $h = FileKind::Points === $this->mapping->kind ? $this->needed('h', 1e5) : $this->number('h');
        if (null !== $h && abs($h) > 1e5) {
            throw new RowFault(\sprintf('height: %s m cannot be', $h));
        }
        if (null === $h && (str_contains($components, 'h') || null !== $sd[2])) {
            throw new RowFault('the height is held or weighted but missing');
        }

        return new PointRecord($this->line, $name, $e, $n, $lat, $lon, $h, $code, $components, $sd, $this->measured());
    }

    private function measured(): ?Measured
    {
        $time = $this->text('time');
        if ('' !== $time && null === Measured::time($time)) {
            ++$this->otherTimes;
        }
        $sd = static fn (?float $metres): string => null === $metres ? '' : (string) json_encode($metres);

        return Measured::of([
            'at' => $time, 'method' => $this->text('method'), 'satellites' => $this->text('satellites'),
            'positions' => $this->text('positions'), 'line' => $this->text('line'), 'sdPlan' => $sd($this->number('sd_plan')),
            'sdUp' => $sd($this->number('sd_up')),
        ]);
    }

    private function vector(): VectorRecord
    {
        $from = $this->name('from');
        $to = $this->name('to');
        if ($from === $to) {
            throw new RowFault(\sprintf('the vector runs from "%s" to itself', $from));
        }
        $d = [$this->needed('dx', 2e7), $this->needed('dy', 2e7), $this->needed('dz', 2e7)];
        $c = [];
        foreach (['cxx', 'cxy', 'cxz', 'cyy', 'cyz', 'czz'] as $key) {
            $c[$key] = $this->number($key) ?? 0.0;
        }
        $covariance = [[$c['cxx'], $c['cxy'], $c['cxz']], [$c['cxy'], $c['cyy'], $c['cyz']], [$c['cxz'], $c['cyz'], $c['czz']]];
        if (!Dense::isCovariance($covariance)) {
            throw new RowFault('the covariance is not positive definite; check its columns and their unit');
        }

        return new VectorRecord($this->line, $from, $to, $this->text('session'), $d, $covariance);
    }

    /**
     * @param array{station: string, set: string, hi: ?float} $carried the setup in force
     *
     * @return ?Pointing null for a line that only states a setup
     */
    private function pointing(array &$carried): ?Pointing
    {
        $station = $this->text('station');
        $station = $this->names[$station] ?? $station;
        $set = $this->text('set');
        $hi = $this->number('hi');
        if ('' !== $station && $station !== $carried['station']) {
            $carried = ['station' => $station, 'set' => '' === $set ? '1' : $set, 'hi' => $hi];
        }
        if ('' !== $set) {
            $carried['set'] = $set;
        }
        if (null !== $hi) {
            $carried['hi'] = $hi;
        }
        if (abs($carried['hi'] ?? 0.0) > 10.0) {
            throw new RowFault(\sprintf('instrument height: %.3f m is too tall; is the unit right?', $carried['hi']));
        }
        if ('' === $this->text('target') && '' === $this->text('direction')) {
            return null;
        }
        if ('' === $carried['station']) {
            throw new RowFault('no station is named on this line or above it');
        }
        $target = $this->name('target');
        if ($target === $carried['station']) {
            throw new RowFault(\sprintf('"%s" sights itself', $target));
        }
        $direction = $this->needed('direction', 720.0);
        $zenith = $this->number('zenith');
        $distance = $this->number('distance');
        $ht = $this->number('ht');
        if (abs($ht ?? 0.0) > 15.0) {
            throw new RowFault(\sprintf('target height: %.3f m is too tall; is the unit right?', $ht));
        }
        if (null !== $distance && ($distance <= 0.0 || $distance > self::LONGEST_SIGHT)) {
            throw new RowFault(\sprintf('slope distance: %s m cannot be', $distance));
        }
        if (null !== $zenith && ($zenith <= 0.0 || $zenith >= 360.0 || abs($zenith - 180.0) < 1.0)) {
            throw new RowFault(\sprintf('zenith angle: %s degrees cannot be', $zenith));
        }
        $horizontal = $this->number('horizontal');
        if (null !== $horizontal && ($horizontal <= 0.0 || $horizontal > self::LONGEST_SIGHT)) {
            throw new RowFault(\sprintf('horizontal distance: %s m cannot be', $horizontal));
        }
        $back = '' === $this->text('back') ? '' : $this->name('back');
        if ('' !== $back && ($back === $target || $back === $carried['station'])) {
            throw new RowFault(\sprintf('an angle from "%s" to "%s" at "%s" cannot be', $back, $target, $carried['station']));
        }
        $half = '' === $back ? 180.0 : 0.0; // the second face turns both legs of an angle
        $face = $this->face();
        // The second face reads the direction half a circle on and the zenith back from 360. Where a zenith angle is there it
        // says which face was read, whatever the column says: some instruments turn what they write back to the first.
        if (null !== $zenith && $zenith > 180.0) {
            $zenith = 360.0 - $zenith;
            $direction -= $half;
            if (1 === $face) {
                ++$this->otherFace;
            }
            $face = 2;
        } elseif (null !== $zenith && 2 === $face) {
            ++$this->otherFace;
        } elseif (null === $zenith && 2 === $face) {
            $direction -= $half;
        }
        $direction = fmod(fmod($direction, 360.0) + 360.0, 360.0);

        $code = $this->text('code');
        foreach (null === $zenith && null === $distance ? [] : ['hi' => $carried['hi'], 'ht' => $ht] as $key => $height) {
            if (null === $height) {
                $this->missing[$key][] = $this->line;
            }
        }

        return new Pointing(
            $this->line, $carried['station'], $carried['set'], $target, $carried['hi'] ?? 0.0, $ht ?? 0.0, $direction, $zenith,
            $distance, $code, $face, $horizontal, $back, $this->weather(),
        );
    }

    /** @return ?array{float, float, float} null where none is recorded */
    private function weather(): ?array
    {
        $values = [];
        foreach ([['temperature', -60.0, 70.0], ['pressure', 300.0, 1200.0], ['humidity', 0.0, 100.0]] as [$key, $least, $most]) {
            $cell = strtr($this->text($key), ['−' => '-']);
            if ('' === $cell) {
                if ('humidity' === $key && 2 === \count($values)) {
                    $values[] = 0.0; // dry air is wrong by less than a part per million
                }
                continue;
            }
            $value = Unit::Metre->read($cell);
            if (null === $value || $value < $least || $value > $most) {
                throw new RowFault(\sprintf('%s: "%s" is not between %s and %s', $key, mb_substr($cell, 0, 20), $least, $most));
            }
            $values[] = $value;
        }

        return 3 === \count($values) ? [$values[0], $values[1], $values[2]] : null;
    }

    /** Which face of the instrument was read, null where the file does not say. */
    private function face(): ?int
    {
        $word = strtolower($this->text('face'));

        return match (true) {
            '' === $word => null,
            \in_array($word, ['1', 'i', 'l', 'left', 'f1', 'fl', 'cl', 'cd', 'direct', 'links'], true) => 1,
            \in_array($word, ['2', 'ii', 'r', 'right', 'f2', 'fr', 'cr', 'ci', 'reverse', 'rechts'], true) => 2,
            default => throw new RowFault(\sprintf('face: "%s" is not understood; write 1 or 2', mb_substr($word, 0, 20))),
        };
    }

    /** Decimal degrees of a latitude or longitude, which may carry the letter of its half of the earth: 12 34 56.7 W. */
    private function graticule(string $key, string $letters, float $limit): float
    {
        $label = 'lat' === $key ? 'latitude' : 'longitude';
        $cell = $this->text($key);
        if ('' === $cell) {
            throw new RowFault(\sprintf('the %s is missing; is the line cut off?', $label));
        }
        $sign = 1.0;
        if (1 === preg_match('/^(.*[^\sA-Za-z])\s*([NSEW])$/iu', $cell, $match)) {
            $letter = strtoupper($match[2]);
            if (!str_contains($letters, $letter) || 1 === preg_match('/^[-−+]/u', $cell)) {
                throw new RowFault(\sprintf(
                    '%s: "%s" is not understood; write it with a sign, or with the letter %s or %s', $label,
                    mb_substr($cell, 0, 30), $letters[0], $letters[1],
                ));
            }
            $sign = $letter === $letters[1] ? -1.0 : 1.0;
            $cell = $match[1];
        }
        $unit = $this->mapping->units[$key] ?? Unit::Degree;
        $value = $unit->read(Unit::DegreeMinuteSecond === $unit ? $cell : strtr(rtrim($cell, " \u{B0}"), ['−' => '-']));
        if (null === $value) {
            throw new RowFault(\sprintf(
                '%s: "%s" is not %s',
                $label,
                mb_substr($cell, 0, 30),
                Unit::DegreeMinuteSecond === $unit ? 'degrees, minutes and seconds' : 'a number',
            ));
        }
        if (abs($value) > $limit) {
            throw new RowFault(\sprintf(
                '%s: %s degrees cannot be%s', $label, $value,
                'lat' === $key ? '; are latitude and longitude exchanged?' : '',
            ));
        }

        return $sign * $value;
    }

    private function text(string $key): string
    {
        $column = $this->mapping->columns[$key] ?? null;

        return null === $column ? '' : $this->row[$column] ?? '';
    }

    private function name(string $key): string
    {
        $name = $this->text($key);
        if ('' === $name) {
            throw new RowFault(\sprintf('%s: the name is missing', $key));
        }
        if (mb_strlen($name) > 60) {
            throw new RowFault(\sprintf('%s: "%s..." is too long for a name (60 characters)', $key, mb_substr($name, 0, 20)));
        }

        return $this->names[$name] ?? $name;
    }

    private function number(string $key): ?float
    {
        $cell = $this->text($key);
        if ('' === $cell) {
            return null;
        }
        // Until its unit is answered a column is read as if in the base unit, to show what it would be.
        $unit = $this->mapping->units[$key] ?? Unit::Metre;
        $value = $unit->read($cell);
        if (null === $value) {
            throw new RowFault(\sprintf(
                '%s: "%s" is not %s',
                $key,
                mb_substr($cell, 0, 30),
                Unit::DegreeMinuteSecond === $unit ? 'degrees, minutes and seconds' : 'a number',
            ));
        }

        return $value;
    }

    private function needed(string $key, float $limit): float
    {
        $value = $this->number($key);
        if (null === $value) {
            throw new RowFault(\sprintf('%s is missing; is the line cut off?', $key));
        }
        if (abs($value) > $limit) {
            throw new RowFault(\sprintf('%s: %s cannot be', $key, $value));
        }

        return $value;
    }
}
