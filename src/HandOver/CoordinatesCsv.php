<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\ExportKind;
use App\Export\ProjectPoints;
use App\Project\Project;
use App\Reference\ProjectReference;
use App\Survey\AcceptedCoordinates;
use Mensura\Exchange\CoordinateCsv\CoordinateCsv;
use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Guess;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Exchange\Delimited\RecordReader;

/** The project's points as a list of coordinates. */
final class CoordinatesCsv implements ExportKind
{
    /** Metres: half of the last decimal written. */
    private const ALLOWED = 0.00001;

    public function __construct(private readonly ProjectPoints $points, private readonly ProjectReference $references)
    {
    }

    public static function key(): string
    {
        return 'csv';
    }

    public function about(): ExportAbout
    {
        $type = 'text/csv; charset=utf-8';
        $holds = 'every point with code, role and source';

        return new ExportAbout('Coordinates as CSV', 'Write the coordinates', 'coordinates', 'csv', $type, 'Coordinates', $holds, 10);
    }

    public function restsOn(array $chosen): array
    {
        return [['points'], [AcceptedCoordinates::SLOT]];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $remark = \sprintf("%s\nreference %s, metres", $project->name(), $this->references->words($project));
        $rows = (function () use ($project): \Generator {
            foreach ($this->points->of($project) as $p) {
                yield [
                    'name' => $p->name, 'e' => (float) $p->e, 'n' => (float) $p->n, 'h' => $p->h, 'code' => $p->code,
                    'role' => $p->role, 'source' => $p->source,
                ];
            }
        })();
        CoordinateCsv::write($rows, $remark, $path);

        return $this->points->leftOut($project);
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $table = DelimitedTable::parse((string) file_get_contents($path));
        $back = [];
        foreach (RecordReader::read($table, Guess::of(FileKind::Points, $table))->records as $r) {
            \assert($r instanceof PointRecord);
            $back[$r->name] = $r;
        }
        $largest = 0.0;
        $count = 0;
        foreach ($this->points->of($project) as $p) {
            ++$count;
            if (null === $p->h) {
                continue;
            }
            $b = $back[$p->name] ?? null;
            $largest = null === $b ? \INF : max($largest, abs($b->e - $p->e), abs($b->n - $p->n), abs((float) $b->h - $p->h));
        }

        return [Check::count('points', $count, \count($table->rows)), Check::difference('coordinates', $largest, self::ALLOWED)];
    }
}
