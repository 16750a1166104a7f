<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Design\CloudFiles;
use App\Design\FilePlacement;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use Mensura\Cloud\PointBlock;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\Correction;
use Mensura\Passes\PassComparison;

/** Scans of passes, made again with the correction that is in use. */
final class PassScans
{
    public function __construct(
        private readonly PassPage $passes, private readonly CloudFiles $clouds, private readonly Results $results,
    ) {
    }

    /** "village, up v2": which version of its trajectory it goes by. */
    public function name(Project $project, int $number): string
    {
        $pass = $this->passes->all($project)[$number] ?? null;

        return null === $pass ? '' : $pass->summary['name'].' v'.$pass->run;
    }

    /**
     * @return array{CloudReader, \Closure(PointBlock): PointBlock} the scan as it came, and how its points come to where they belong
     *
     * @throws UnusableInput where the pass is not there, stale, or not corrected
     */
    public function opened(Project $project, int $number, string $pointer): array
    {
        $pass = $this->fresh($project, $number, $pointer);
        [$reader, $way] = $this->clouds->opened($project, PassSettings::fromArray($pass->settings)->cloud, $pointer);
        $correction = $this->passes->correction($pass);

        return [$reader, static function (PointBlock $b) use ($reader, $way, $correction): PointBlock {
            [$x, $y, $z] = null === $way ? [$b->x, $b->y, $b->z] : FilePlacement::along($way, $b->x, $b->y, $b->z);
            [$x, $y, $z] = self::corrected($reader, $correction, $b, $x, $y, $z);

            return new PointBlock($x, $y, $z, $b->classes, $b->records, $b->looks);
        }];
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private static function corrected(CloudReader $reader, Correction $by, PointBlock $points, array $x, array $y, array $z): array
    {
        $times = $reader->las?->times(implode('', $points->records))
            ?? throw new UnusableInput($reader->name, 'holds points without GPS time; export it with times');

        return $by->apply($times, $x, $y, $z);
    }

    private function fresh(Project $project, int $number, string $pointer): Result
    {
        $pass = $this->passes->all($project)[$number] ?? throw new UnusableInput($pointer, 'there is no such pass');
        if (isset($this->results->stale($project)[$pass->slot])) {
            throw new UnusableInput($pointer, 'is stale; align the pass again first');
        }

        return PassComparison::CORRECTED === $pass->summary['status'] ? $pass
            : throw new UnusableInput($pointer, 'is not corrected: its scan stays as it came');
    }
}
