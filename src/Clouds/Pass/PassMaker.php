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
use Mensura\Passes\ControlKnots;
use Mensura\Passes\Correction;
use Mensura\Passes\Pass;
use Mensura\Passes\PassAlignment;
use Mensura\Passes\PassComparison;
use Mensura\Passes\PassSet;
use Mensura\Passes\Sighting;
use Mensura\Passes\Station;

/**
 * Lays a pass onto another, or registers it to control, and keeps its stations and its correction; every run is a version of the
 * trajectory, the newest in use.
 */
final class PassMaker implements Recompute
{
    public const PREFIX = 'pass:';
    /** Neither laid onto a drive nor held by control yet: nothing is corrected. */
    public const AS_DRIVEN = 'as-driven';

    public function __construct(
        private readonly DriveFiles $drives, private readonly PassTargets $targets, private readonly MadePasses $made,
        private readonly ScanCells $scans, private readonly FileStore $store, private readonly Results $results,
        private readonly Ledger $ledger,
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
        $read = function (Project $project) use ($settings, $number): array {
            $pass = $this->drives->pass($project, 'pass', $settings->trajectory, $settings->cloud, '/trajectory', $settings->preShift);

            return [
                $this->onto($project, $settings, $number), $pass,
                $this->targets->sightings($project, $settings->targets, $pass->trajectory),
            ];
        };
        [$basis, [$onto, $pass, $sightings]] = $this->results->reading($project, $settings->contents(), $settings->slots(), $read);
        $control = ControlKnots::of(PassTargets::MOVES, $sightings);
        $part = static fn (float $of) => $report('stations', 0.05 + 0.9 * $of);
        $c = null === $onto ? null : self::compared($onto, $pass, $sightings, $settings, $part);
        $correction = null === $c ? $control->correction : $c->correction;
        $targets = PassTargets::compared($sightings, $correction, $control);
        $summary = $this->summary($project, $settings, $pass, $onto, $c, $correction) + [
            'control' => PassTargets::rms($targets, Point::CONTROL), 'check' => PassTargets::rms($targets, Point::CHECK),
            'without' => null === $c ? PassTargets::withoutEach($targets) : null,
        ];
        $output = $this->store->putJson([
            'stations' => array_map(static fn (Station $s): array => [
                'time' => $s->time, 'e' => $s->place[0], 'n' => $s->place[1], 'h' => $s->place[2], 'used' => $s->isUsed(),
                'reason' => $s->reason, 'shift' => $s->shift, 'sd' => $s->sd, 'points' => $s->points, 'rmsBefore' => $s->rmsBefore,
                'rmsAfter' => $s->rmsAfter,
            ], $c->stations ?? []),
            'correction' => self::function($correction), 'stays' => self::function($onto->correction ?? Correction::none()),
            'targets' => $targets, 'path' => [$pass->trajectory->e, $pass->trajectory->n],
            'reference' => null === $onto ? [[], []] : [$onto->pass->trajectory->e, $onto->pass->trajectory->n],
        ]);
        $report('sections', 0.95);
        foreach (array_filter([$settings->cloud, $onto?->cloud]) as $cloud) {
            $this->scans->made($project, $cloud, '/cloud');
        }
        $report('keeping', 0.98);
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Pass '.$settings->name, $basis, (array) $settings, $summary, $output,
        );
        $record = new RecordNumbered($this->results, $outcome, 'align-pass', self::title($summary), 'pass');
        $this->ledger->carryOut($project, $authorName, $record, $jobId);

        return $record->number;
    }

    /** @throws UnusableInput */
    private function onto(Project $project, PassSettings $settings, ?int $number): ?PassOnto
    {
        if (null !== $settings->referencePass) {
            $this->refuseRound($project, $settings, $number);
            $there = $this->made->fresh($project, $settings->referencePass, '/referencePass');
            $of = PassSettings::fromArray($there->settings);
            $by = $this->made->correction($there);
            $pass = $this->drives->pass($project, 'reference', $of->trajectory, $of->cloud, '/referencePass', [0.0, 0.0, 0.0], $by);

            return new PassOnto($pass, $of->cloud, MadePasses::named($there), $by);
        }
        if (null === $settings->referenceTrajectory) {
            return null;
        }
        $cloud = (int) $settings->referenceCloud;
        $pass = $this->drives->pass($project, 'reference', $settings->referenceTrajectory, $cloud, '/referenceTrajectory');

        return new PassOnto($pass, $cloud, $this->fileName($project, $settings->referenceTrajectory), Correction::none());
    }

    /** @throws UnusableInput where what stays rests on the pass itself, or on its drive */
    private function refuseRound(Project $project, PassSettings $settings, ?int $number): void
    {
        $all = $this->made->of($project);
        for ($next = $settings->referencePass; null !== $next && isset($all[$next]); $next = $of->referencePass) {
            $of = PassSettings::fromArray($all[$next]->settings);
            $isOfIt = \in_array($settings->trajectory, [$of->trajectory, $of->referenceTrajectory], true);
            if ($next === $number || $isOfIt) {
                throw new UnusableInput('/referencePass', 'rests on the drive that would be laid onto it; choose another one');
            }
        }
    }

    /**
     * @param list<Sighting>        $sightings
     * @param \Closure(float): void $part
     */
    private static function compared(
        PassOnto $onto, Pass $pass, array $sightings, PassSettings $settings, \Closure $part,
    ): PassComparison {
        $set = new PassSet([$onto->pass, $pass], PassTargets::STAYS, $sightings, $settings->every, $settings->isTime, $settings->radius);

        return PassAlignment::of($set, $part)->toReference[PassTargets::MOVES]
            ?? throw new \LogicException('The second pass is compared.');
    }

    /**
     * @return array{
     *     name: string, of: string, onto: string, status: string, reason: ?string, stations: int, used: int, length: float,
     *     rmsBefore: ?float, rmsAfter: ?float, greatest: float,
     * }
     */
    private function summary(
        Project $project, PassSettings $settings, Pass $pass, ?PassOnto $onto, ?PassComparison $c, Correction $correction,
    ): array {
        $size = static fn (array $s): float => sqrt($s[0] ** 2 + $s[1] ** 2 + $s[2] ** 2);
        $isHeld = [] !== $correction->times;

        return [
            'name' => $settings->name, 'of' => $this->fileName($project, $settings->trajectory), 'onto' => $onto->name ?? '',
            'status' => $c->status ?? ($isHeld ? PassComparison::CORRECTED : self::AS_DRIVEN),
            'reason' => null === $c && !$isHeld ? 'no control point is marked in its scan yet' : $c?->reason,
            'stations' => \count($c->stations ?? []),
            'used' => \count(array_filter($c->stations ?? [], static fn (Station $s): bool => $s->isUsed())),
            'length' => $pass->trajectory->length(), 'rmsBefore' => $c?->rmsBefore, 'rmsAfter' => $c?->rmsAfter,
            'greatest' => max([0.0, ...array_map($size, $correction->shifts)]),
        ];
    }

    /** @param array<string, mixed> $s summary */
    private static function title(array $s): string
    {
        return '' === $s['onto'] ? \sprintf(
            'Registered pass %s to control: %s, %d sightings', $s['name'], $s['status'], $s['control']['count'] ?? 0,
        ) : \sprintf('Laid pass %s onto %s: %s, %d of %d stations', $s['name'], $s['onto'], $s['status'], $s['used'], $s['stations']);
    }

    /** @return array{times: list<float>, shifts: list<array{float, float, float}>} */
    private static function function(Correction $c): array
    {
        return ['times' => $c->times, 'shifts' => $c->shifts];
    }

    private function fileName(Project $project, int $id): string
    {
        return array_column($this->drives->trajectories($project), 'name', 'id')[$id] ?? '';
    }
}
