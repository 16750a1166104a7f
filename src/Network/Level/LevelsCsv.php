<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\ExportKind;
use App\Project\Project;
use Mensura\Exchange\LevelCsv\LevelCsv;
use Mensura\Fault\UnusableInput;

/** The levelling book as delimited records, as it can be read in again. */
final readonly class LevelsCsv implements ExportKind
{
    /** Metres: half of the last decimal written. */
    private const ALLOWED = 0.000005;

    public function __construct(private LevelRunRepository $runs, private LevelDesk $desk)
    {
    }

    public static function key(): string
    {
        return 'levels-csv';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Levelling book as CSV', 'Write the levelling book', 'levels', 'csv', 'text/csv; charset=utf-8', 'Levelling book',
            'every reading with its running height', 34,
        );
    }

    public function restsOn(array $chosen): array
    {
        return [['levels'], []];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $runs = $this->runs->all($project);
        if ([] === $runs) {
            throw new UnusableInput('', 'the levelling book is empty; write a run on the Levels page of the network first');
        }
        $left = [];
        $rows = function () use ($runs, $project, &$left): \Generator {
            foreach ($runs as $run) {
                $draft = $this->desk->draft($project, $run->pattern, $run->rows);
                foreach ($run->rows as $i => $row) {
                    if (null === $row['reading'] || '' === $row['point']) {
                        $left[$run->name] = \sprintf('unfinished sights of run %s', $run->name);
                        continue;
                    }
                    yield [
                        'run' => $run->name, 'kind' => $row['kind'], 'point' => $row['point'], 'reading' => $row['reading'],
                        'distance' => $row['distance'], 'height' => $draft->rows[$i]['h'],
                    ];
                }
            }
        };
        LevelCsv::write($rows(), $project->name()."\nlevelling book, metres; running heights before the misclosure is shared out", $path);

        return array_values($left);
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $back = [];
        foreach (LevelCsv::read((string) file_get_contents($path)) as $run) {
            $back[$run['name']] = $run['rows'];
        }
        $count = $found = 0;
        $largest = 0.0;
        foreach ($this->runs->all($project) as $run) {
            $written = array_values(array_filter($run->rows, static fn (array $r): bool => null !== $r['reading'] && '' !== $r['point']));
            $count += \count($written);
            $found += \count($back[$run->name] ?? []);
            foreach ($written as $i => $row) {
                $largest = max($largest, abs(($back[$run->name][$i]['reading'] ?? \INF) - (float) $row['reading']));
            }
        }

        return [Check::count('sights', $count, $found), Check::difference('readings', $largest, self::ALLOWED)];
    }
}
