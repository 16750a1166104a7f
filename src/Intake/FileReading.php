<?php

declare(strict_types=1);

namespace App\Intake;

use App\Store\FileStore;
use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Mapping;
use Mensura\Exchange\Delimited\RecordReader;
use Mensura\Fault\UnusableInput;

/** A waiting file as it is understood now. */
final readonly class FileReading
{
    public function __construct(public DelimitedTable $table, public Mapping $mapping, public RecordReader $reader, public Meaning $meaning)
    {
    }

    /** @throws UnusableInput */
    public static function of(FileStore $store, SurveyFile $file): self
    {
        $table = DelimitedTable::parse($store->get($file->sha256()));
        $mapping = [] === $file->mapping() ? Mapping::guess($table) : Mapping::fromArray($file->mapping(), $table);

        return new self($table, $mapping, RecordReader::read($table, $mapping), Meaning::fromArray($file->meaning()));
    }

    /** @return array<string, int> what the file holds, for people */
    public function counts(): array
    {
        $records = $this->reader->records;

        return match ($this->mapping->kind) {
            FileKind::Control => ['points' => \count($records), 'held' => \count(array_filter($records, static fn (array $r): bool => '' !== $r['held'])), 'weighted' => \count(array_filter($records, static fn (array $r): bool => '' === $r['held'] && [] !== array_filter($r['sd'])))],
            FileKind::Points => ['points' => \count($records), 'codes' => \count(array_unique(array_column($records, 'code')))],
            FileKind::Vectors => ['vectors' => \count($records), 'sessions' => \count(array_unique(array_column($records, 'session'))), 'stations' => \count(array_unique([...array_column($records, 'from'), ...array_column($records, 'to')]))],
            FileKind::TotalStation => [
                'setups' => \count(array_unique(array_map(static fn (array $r): string => $r['station']."\0".$r['set'], $records))),
                'pointings' => \count($records),
                'targets' => \count(array_unique(array_column($records, 'target'))),
                'distances' => \count(array_filter(array_column($records, 'distance'))),
            ],
        };
    }
}
