<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Clouds\Pass\DriveFiles;
use App\Clouds\Pass\MadePasses;
use App\Clouds\Pass\PassMaker;
use App\Clouds\Pass\PassSettings;
use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Project\Project;
use App\Result\Result;
use App\Store\StoreFault;
use Mensura\Exchange\PassesJson\TimedCsv;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\PassComparison;

/** The trajectory of a pass as it is corrected: every line as it came but for its place. */
final readonly class TrajectoryExport implements OffersChoice
{
    /** Metres: half of the last decimal written. */
    private const ALLOWED = 0.00006;

    public function __construct(private MadePasses $passes, private DriveFiles $drives)
    {
    }

    public static function key(): string
    {
        return 'trajectory-csv';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Corrected trajectory', 'Write the trajectory', 'trajectory', 'csv', 'text/csv; charset=utf-8', 'Trajectory of a pass',
            'every row of a trajectory, where it was corrected to', 12, 1,
        );
    }

    public function choices(Project $project): array
    {
        $corrected = array_filter(
            $this->passes->of($project), static fn (Result $r): bool => PassComparison::CORRECTED === $r->summary['status'],
        );

        return array_map(static fn (Result $r): string => (string) $r->summary['name'], $corrected);
    }

    public function restsOn(array $chosen): array
    {
        return [[], [PassMaker::PREFIX.($chosen[0] ?? 0)]];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $pass = $this->chosen($project, $chosen);
        $id = PassSettings::fromArray($pass->settings)->trajectory;
        $moved = $this->drives->trajectory($project, $id, '/surfaces')->corrected($this->passes->correction($pass));
        $csv = $this->drives->csv($project, $id, '/surfaces');
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        $row = 0;
        foreach ($csv->lines() as [$line, $values]) {
            if (null !== $values) {
                $line = $csv->withPlace($line, [$moved->e[$row], $moved->n[$row], $moved->h[$row]]);
                ++$row;
            }
            if (\strlen($line) !== @fwrite($file, $line)) {
                throw StoreFault::full(null);
            }
        }
        fclose($file);

        return [];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $pass = $this->chosen($project, $chosen);
        $id = PassSettings::fromArray($pass->settings)->trajectory;
        $meant = $this->drives->trajectory($project, $id, '/surfaces')->corrected($this->passes->correction($pass));
        $back = (new TimedCsv($path, basename($path)))->trajectory();
        $largest = \count($back->times) === \count($meant->times) ? 0.0 : \INF;
        foreach ($back->e as $i => $e) {
            $plan = max(abs($e - ($meant->e[$i] ?? \INF)), abs($back->n[$i] - ($meant->n[$i] ?? \INF)));
            $largest = max($largest, $plan, abs($back->h[$i] - ($meant->h[$i] ?? \INF)));
        }

        return [Check::count('rows', \count($meant->times), \count($back->times)), Check::difference('places', $largest, self::ALLOWED)];
    }

    /** @param list<int> $chosen */
    private function chosen(Project $project, array $chosen): Result
    {
        $pass = $this->passes->of($project)[$chosen[0] ?? 0] ?? null;
        if (null === $pass || PassComparison::CORRECTED !== $pass->summary['status']) {
            throw new UnusableInput('/surfaces', 'are one pass that is corrected');
        }

        return $pass;
    }
}
