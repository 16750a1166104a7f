<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Project\Project;
use App\Reference\ProjectReference;
use Mensura\Exchange\CoordinateCsv\CoordinateCsv;
use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Mapping;
use Mensura\Exchange\Delimited\RecordReader;

final class CsvWriter implements ExportWriter
{
    public function __construct(private readonly ProjectPoints $points, private readonly ProjectReference $references)
    {
    }

    public static function kind(): string
    {
        return 'csv';
    }

    public function write(Project $project, array $surfaces): Written
    {
        $remark = \sprintf("%s\nreference %s, metres", $project->name(), $this->references->words($project));

        return new Written('Coordinates as CSV', ProjectPoints::fileName($project, 'coordinates', 'csv'), CoordinateCsv::write($this->points->of($project), $remark), $this->points->leftOut($project));
    }

    public function check(Project $project, array $surfaces, string $bytes): array
    {
        $points = array_filter($this->points->of($project), static fn (array $p): bool => null !== $p['h']);
        $table = DelimitedTable::parse($bytes);
        $back = array_column(RecordReader::read($table, Mapping::forKind(FileKind::Points, $table))->records, null, 'name');
        $largest = 0.0;
        foreach ($points as $p) {
            $b = $back[$p['name']] ?? null;
            $largest = null === $b ? \INF : max($largest, abs($b['e'] - $p['e']), abs($b['n'] - $p['n']), abs($b['h'] - (float) $p['h']));
        }

        return [
            Receipt::count('points', \count($this->points->of($project)), \count($table->rows)),
            Receipt::difference('coordinates', $largest, 0.00001),
        ];
    }
}
