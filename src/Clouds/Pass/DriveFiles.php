<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Clouds\View\TrajectoryFileView;
use App\Design\CloudFiles;
use App\Design\FilePlacement;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\PassesJson\TimedCsv;
use Mensura\Exchange\PassesJson\TimedPoints;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\Correction;
use Mensura\Passes\Pass;
use Mensura\Passes\Trajectory;

/** Drives of a mobile mapper: accepted trajectories, and scans with times, where the project has them now. */
final class DriveFiles
{
    public function __construct(
        private readonly SurveyFileRepository $files, private readonly FileStore $store, private readonly FilePlacement $placement,
        private readonly CloudFiles $clouds,
    ) {
    }

    /** @return list<TrajectoryFileView> */
    public function trajectories(Project $project): array
    {
        return array_values(array_map(static fn (SurveyFile $f): TrajectoryFileView => new TrajectoryFileView(
            $f->id(), $f->name(), (int) ($f->mapping()['rows'] ?? 0), (float) ($f->mapping()['length'] ?? 0.0),
        ), array_filter($this->files->of($project), self::isTrajectory(...))));
    }

    /** @throws UnusableInput */
    public function csv(Project $project, int $id, string $pointer): TimedCsv
    {
        $file = $this->file($project, $id, $pointer);

        return new TimedCsv($this->store->localPath($file->sha256()), $file->name());
    }

    /** @throws UnusableInput */
    public function trajectory(Project $project, int $id, string $pointer): Trajectory
    {
        $file = $this->file($project, $id, $pointer);
        $t = $this->csv($project, $id, $pointer)->trajectory();
        [$e, $n, $h] = $this->placement->placed($project, $file, $t->e, $t->n, $t->h);

        return [] === $e || [] === $n || [] === $h ? $t : new Trajectory($t->times, $e, $n, $h);
    }

    /**
     * @param array{float, float, float} $preShift
     * @param ?Correction                $by       its places are corrected by; null for a drive as it came
     *
     * @throws UnusableInput
     */
    public function pass(
        Project $project, string $id, int $trajectory, int $cloud, string $pointer, array $preShift = [0.0, 0.0, 0.0],
        ?Correction $by = null,
    ): Pass {
        $by ??= Correction::none();
        $points = function () use ($project, $cloud, $pointer, $by): \Generator {
            foreach ($this->points($project, $cloud, $pointer) as [$t, $x, $y, $z]) {
                yield [$t, ...$by->apply($t, $x, $y, $z)];
            }
        };

        return new Pass($id, $this->trajectory($project, $trajectory, $pointer)->corrected($by), $points, $preShift);
    }

    /**
     * @return \Generator<array{list<float>, list<float>, list<float>, list<float>, list<int>}> time, e, n, h and intensity, many at
     *                                                                                          once; no intensities where there are none
     *
     * @throws UnusableInput for a scan without times
     */
    public function points(Project $project, int $cloud, string $pointer): \Generator
    {
        [, $way] = $this->clouds->opened($project, $cloud, $pointer);
        $file = $this->scan($project, $cloud, $pointer);
        foreach (TimedPoints::of($this->store->localPath($file->sha256()), $file->name()) as [$t, $x, $y, $z, $intensity]) {
            yield null === $way ? [$t, $x, $y, $z, $intensity] : [$t, ...FilePlacement::along($way, $x, $y, $z), $intensity];
        }
    }

    /**
     * Hash of what a scan's file holds.
     *
     * @throws UnusableInput
     */
    public function contents(Project $project, int $cloud, string $pointer): string
    {
        return $this->scan($project, $cloud, $pointer)->sha256();
    }

    private function scan(Project $project, int $cloud, string $pointer): SurveyFile
    {
        return $this->files->in($project, $cloud) ?? throw new UnusableInput($pointer, 'there is no such point cloud in the project');
    }

    private function file(Project $project, int $id, string $pointer): SurveyFile
    {
        $file = $this->files->in($project, $id);

        return null !== $file && self::isTrajectory($file) ? $file
            : throw new UnusableInput($pointer, 'there is no such trajectory in the project');
    }

    private static function isTrajectory(SurveyFile $file): bool
    {
        return !$file->isWaiting() && FileKind::Trajectory->value === $file->kind();
    }
}
