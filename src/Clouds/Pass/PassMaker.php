<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\RecordNumbered;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\Point;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\Pass;
use Mensura\Passes\PassAlignment;
use Mensura\Passes\PassComparison;
use Mensura\Passes\PassSet;
use Mensura\Passes\Station;

/** Lays a pass onto another and keeps its stations and its correction; every run is a version of the trajectory, the newest in use. */
final class PassMaker implements Recompute
{
    public const PREFIX = 'pass:';

    public function __construct(
        private readonly DriveFiles $drives, private readonly PassTargets $targets, private readonly FileStore $store,
        private readonly Results $results, private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'pass';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = PassSettings::fromArray($newest->settings);
        $this->make($context->project, $context->authorName, $newest->number(), $settings, $context->report(...), $context->jobId);
    }

    /**
     * @param ?int                           $number   of the alignment that is made anew; null for a new one
     * @param ?\Closure(string, float): void $progress
     *
     * @return int number it is kept under
     *
     * @throws UnusableInput
     */
    public function make(
        Project $project, string $authorName, ?int $number, PassSettings $settings, ?\Closure $progress = null, ?string $jobId = null,
    ): int {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $report('reading', 0.02);
        $read = fn (Project $project): array => [
            $this->drives->pass($project, 'reference', $settings->referenceTrajectory, $settings->referenceCloud, '/referenceTrajectory'),
            $this->drives->pass($project, 'pass', $settings->trajectory, $settings->cloud, '/trajectory', $settings->preShift),
            $this->targets->sightings($project, $settings->targets),
        ];
        [$basis, [$reference, $pass, $sightings]] = $this->results->reading($project, $settings->contents(), [], $read);
        $set = new PassSet([$reference, $pass], PassTargets::STAYS, $sightings, $settings->every, $settings->isTime, $settings->radius);
        $part = static fn (float $of) => $report('stations', 0.05 + 0.9 * $of);
        $result = PassAlignment::of($set, $part);
        $c = $result->toReference[PassTargets::MOVES] ?? throw new \LogicException('The second pass is compared.');
        $targets = PassTargets::compared($sightings, $result);
        $summary = $this->summary($project, $settings, $pass, $c) + [
            'control' => PassTargets::rms($targets, Point::CONTROL), 'check' => PassTargets::rms($targets, Point::CHECK),
        ];
        $stays = $result->toControl[PassTargets::STAYS]->correction;
        $output = $this->store->putJson([
            'stations' => array_map(static fn (Station $s): array => [
                'time' => $s->time, 'e' => $s->place[0], 'n' => $s->place[1], 'h' => $s->place[2], 'used' => $s->isUsed(),
                'reason' => $s->reason, 'shift' => $s->shift, 'sd' => $s->sd, 'points' => $s->points, 'rmsBefore' => $s->rmsBefore,
                'rmsAfter' => $s->rmsAfter,
            ], $c->stations),
            'correction' => ['times' => $c->correction->times, 'shifts' => $c->correction->shifts],
            'stays' => ['times' => $stays->times, 'shifts' => $stays->shifts], 'targets' => $targets,
            'path' => [$pass->trajectory->e, $pass->trajectory->n], 'reference' => [$reference->trajectory->e, $reference->trajectory->n],
        ]);
        $report('keeping', 0.97);
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Pass '.$settings->name, $basis, (array) $settings, $summary, $output,
        );
        $title = \sprintf('Laid pass %s onto %s: %s, %d of %d stations', $settings->name, $summary['onto'], $c->status, $summary['used'],
            $summary['stations']);
        $record = new RecordNumbered($this->results, $outcome, 'align-pass', $title, 'pass');
        $this->ledger->carryOut($project, $authorName, $record, $jobId);

        return $record->number;
    }

    /**
     * @return array{
     *     name: string, of: string, onto: string, status: string, reason: ?string, stations: int, used: int, length: float,
     *     rmsBefore: ?float, rmsAfter: ?float, greatest: float,
     * }
     */
    private function summary(Project $project, PassSettings $settings, Pass $pass, PassComparison $c): array
    {
        $names = array_column($this->drives->trajectories($project), 'name', 'id');
        $size = static fn (array $s): float => sqrt($s[0] ** 2 + $s[1] ** 2 + $s[2] ** 2);

        return [
            'name' => $settings->name, 'of' => $names[$settings->trajectory] ?? '', 'onto' => $names[$settings->referenceTrajectory] ?? '',
            'status' => $c->status, 'reason' => $c->reason, 'stations' => \count($c->stations),
            'used' => \count(array_filter($c->stations, static fn (Station $s): bool => $s->isUsed())),
            'length' => $pass->trajectory->length(), 'rmsBefore' => $c->rmsBefore, 'rmsAfter' => $c->rmsAfter,
            'greatest' => max([0.0, ...array_map($size, $c->correction->shifts)]),
        ];
    }
}
