<?php

declare(strict_types=1);

namespace App\Intake\Format\Delimited;

use App\Intake\Format\Reading;
use App\Intake\View\ColumnView;
use App\Intake\View\FieldView;
use App\Intake\View\UnitAskView;
use App\Survey\ImportedObservation;
use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\Field;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Mapping;
use Mensura\Exchange\Delimited\Pointing;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Exchange\Delimited\RecordReader;
use Mensura\Exchange\Delimited\UnitOffer;
use Mensura\Exchange\Delimited\VectorRecord;
use Mensura\Quantity\Unit;

/** A delimited file by the columns that were chosen. */
final readonly class DelimitedReading implements Reading
{
    private const SHOWN_ROWS = 4;

    private RecordReader $reader;

    /**
     * @param Unit                  $usual length of the project
     * @param array<string, string> $names what names stand for
     */
    public function __construct(private DelimitedTable $table, private Mapping $mapping, private Unit $usual, array $names)
    {
        $this->reader = RecordReader::read($table, $mapping, $names);
    }

    public function kind(): FileKind
    {
        return $this->mapping->kind;
    }

    public function counts(): array
    {
        $records = $this->reader->records;
        $distinct = static fn (string $field): int => \count(array_unique(array_column($records, $field)));

        return match ($this->mapping->kind) {
            FileKind::Control => [
                'points' => \count($records),
                'held' => \count(array_filter($this->points(), static fn (PointRecord $r): bool => '' !== $r->held)),
                'weighted' => \count(array_filter(
                    $this->points(),
                    static fn (PointRecord $r): bool => '' === $r->held && [] !== array_filter($r->sd),
                )),
            ],
            FileKind::Points => ['points' => \count($records), 'codes' => $distinct('code')],
            FileKind::Vectors => [
                'vectors' => \count($records), 'sessions' => $distinct('session'),
                'stations' => \count(array_unique([...array_column($records, 'from'), ...array_column($records, 'to')])),
            ],
            FileKind::TotalStation => [
                'setups' => \count(array_unique(array_map(
                    static fn (Pointing $r): string => $r->station."\0".$r->set, $this->pointings(),
                ))),
                'pointings' => \count($records), 'targets' => $distinct('target'),
                'distances' => \count(array_filter([...array_column($records, 'distance'), ...array_column($records, 'horizontal')])),
            ],
            default => [],
        };
    }

    public function size(): int
    {
        return \count($this->reader->records);
    }

    public function points(): array
    {
        return array_values(array_filter($this->reader->records, static fn (object $r): bool => $r instanceof PointRecord));
    }

    public function observations(): iterable
    {
        foreach ($this->reader->records as $r) {
            if ($r instanceof VectorRecord) {
                yield new ImportedObservation(
                    $r->line, 'vector', $r->session, $r->from, $r->to, $r->d[0], $r->d[1], $r->d[2],
                    covariance: $r->covariance,
                );
            }
            if (!$r instanceof Pointing) {
                continue;
            }
            // Plan observations run from mark to mark: heights of instrument and target do not count.
            $sight = static fn (string $kind, float $value, bool $isPlan = false): ImportedObservation => new ImportedObservation(
                $r->line, $kind, $r->set, $r->station, $r->target, $value, hi: $isPlan ? 0.0 : $r->hi, ht: $isPlan ? 0.0 : $r->ht,
                back: 'angle' === $kind ? $r->back : null, face: $r->face,
                weather: null === $r->weather ? null : implode(';', $r->weather),
            );
            yield $sight('' === $r->back ? 'direction' : 'angle', $r->direction, true);
            if (null !== $r->zenith) {
                yield $sight('zenith', $r->zenith);
            }
            if (null !== $r->distance) {
                yield $sight('slope-distance', $r->distance);
            }
            if (null !== $r->horizontal) {
                yield $sight('horizontal-distance', $r->horizontal);
            }
        }
    }

    public function leftOut(): int
    {
        return $this->reader->leftOut;
    }

    public function findings(): array
    {
        return $this->reader->findings;
    }

    public function missing(): ?string
    {
        $missing = $this->mapping->missing()[0] ?? null;

        return null === $missing ? null : 'no column is chosen for '.$missing->label;
    }

    public function unitsAsked(): array
    {
        $names = static fn (UnitOffer $o): string => implode(', ', array_map(static fn (Field $f): string => $f->label, $o->fields));

        return array_map(static fn (UnitOffer $o): UnitAskView => new UnitAskView(
            \sprintf('In which unit are the %s (%s)?', $o->words(), $names($o)),
            array_map(static fn (Field $f): string => $f->key, $o->fields),
            array_map(static fn (Unit $u): string => $u->value, Unit::of($o->fields[0]->quantity)), $o->unit->value, $o->why,
        ), UnitOffer::all($this->table, $this->mapping, $this->usual));
    }

    public function statesControl(): bool
    {
        $columns = array_intersect_key($this->mapping->columns, ['held' => 0, 'sd_e' => 0, 'sd_n' => 0, 'sd_h' => 0]);
        foreach ($this->table->rows as $row) {
            foreach ($columns as $column) {
                if ('' !== ($row[$column] ?? '')) {
                    return true;
                }
            }
        }

        return false;
    }

    public function asksOrder(): bool
    {
        return $this->mapping->asksOrder;
    }

    public function isGeographic(): bool
    {
        return $this->mapping->isGeographic();
    }

    public function heightsSaid(): ?string
    {
        return $this->mapping->heightsSaid($this->table);
    }

    public function hasHeights(): bool
    {
        return isset($this->mapping->columns['h']);
    }

    public function kept(): array
    {
        return $this->mapping->toArray();
    }

    public function columns(): array
    {
        $shown = \array_slice($this->table->rows, 0, self::SHOWN_ROWS);
        $unused = array_flip($this->mapping->unused($this->table));

        return array_map(
            static fn (
                int $i, string $heading,
            ): ColumnView => new ColumnView(
                $i, $heading, array_map(static fn (array $row): string => $row[$i] ?? '', $shown), !isset($unused[$i]),
            ),
            array_keys($this->table->header), $this->table->header,
        );
    }

    public function fields(): array
    {
        return array_map(fn (Field $f): FieldView => new FieldView(
            $f->key, $f->label, $f->quantity, $this->mapping->requires($f), $this->mapping->columns[$f->key] ?? null,
            ($this->mapping->units[$f->key] ?? null)?->value, array_map(static fn (Unit $u): string => $u->value, Unit::of($f->quantity)),
            ($this->mapping->evidence[$f->key] ?? null)->level ?? '', ($this->mapping->evidence[$f->key] ?? null)->why ?? '',
        ), $this->mapping->kind->fields());
    }

    /** @return list<Pointing> */
    private function pointings(): array
    {
        return array_values(array_filter($this->reader->records, static fn (object $r): bool => $r instanceof Pointing));
    }
}
