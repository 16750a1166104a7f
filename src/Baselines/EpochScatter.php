<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\ChangePoints;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Move;
use Mensura\Gnss\Stand;

/**
 * Solves an occupation epoch by epoch, over the whole of what it recorded, and proposes when its receiver left one place for
 * another. The trim of the occupation does not count here: it is what is looked for.
 */
final class EpochScatter implements Recompute
{
    /** Seconds of a short line that are commonly enough (common practice: a quarter of an hour at the least). */
    private const ENOUGH = 900.0;

    public function __construct(
        private readonly OccupationRepository $occupations,
        private readonly Processing $processing,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'epochs';
    }

    public function again(JobContext $context, Result $newest): void
    {
        [$a, $b] = array_map(intval(...), explode('-', substr($newest->slot, \strlen(Slots::EPOCHS))));
        $base = (int) ($newest->settings['base'] ?? $a);
        $this->make(
            $context->project, $context->authorName, $base, $base === $a ? $b : $a, ProcessingSettings::fromArray($newest->settings),
            $context->report(...),
        );
    }

    /** @param \Closure(string, float): void $progress */
    public function make(
        Project $project, string $authorName, int $base, int $rover, ProcessingSettings $settings, \Closure $progress,
        ?string $jobId = null,
    ): void {
        $progress('epoch by epoch', 0.1);
        $contents = ['recording:'.$base, 'recording:'.$rover, 'orbits', 'antennas'];
        [$basis, [$one, $two, $solved]] = $this->results->reading(
            $project, $contents, [], function (Project $project) use ($base, $rover, $settings): array {
                [$one, $two] = [$this->whole($project, $base), $this->whole($project, $rover)];

                return [$one, $two, $this->processing->solve($project, $one, $two, $settings, BaselineProcessor::KINEMATIC)];
            },
        );
        $progress('changes', 0.9);
        $document = self::document($solved);
        $label = \sprintf('Epochs of %s from %s', $two->marker, $one->marker);
        $outcome = new Outcome(
            Slots::EPOCHS.Pair::keyOf($one, $two), self::kind(), $label, $basis, ['base' => $base] + (array) $settings,
            ['mark' => $two->marker] + $document['summary'], $this->store->putJson($document),
        );
        $this->ledger->carryOut($project, $authorName, new RecordEpochs($this->results, $outcome), $jobId);
    }

    private function whole(Project $project, int $id): Occupation
    {
        $whole = clone ($this->occupations->in($project, $id) ?? throw new UnusableInput('', 'the occupation is not there any more'));
        $whole->trimFrom = $whole->trimTo = null;

        return $whole;
    }

    /** @return array<string, mixed> */
    private static function document(SolvedBaseline $solved): array
    {
        $track = $solved->solution->track;
        $first = $track[0]['time'];
        $origin = $track[0]['position'];
        $horizon = Horizon::of($origin);
        $seconds = $e = $n = $u = $fixed = $satellites = [];
        foreach ($track as $t) {
            $p = $t['position'];
            $seconds[] = round($t['time']->since($first), 2);
            [$e[], $n[], $u[]] = $horizon->components($p[0] - $origin[0], $p[1] - $origin[1], $p[2] - $origin[2]);
            $fixed[] = 'fixed' === $t['solution'] ? 1 : 0;
            $satellites[] = $t['satellites'];
        }
        $changes = new ChangePoints($seconds, $e, $n, $u);
        $zero = $changes->stands[0]->mean ?? [0.0, 0.0, 0.0];
        $mm = static fn (array $values, int $c): array => array_map(
            static fn (float $v): float => round(1000.0 * ($v - $zero[$c]), 1), $values,
        );
        $stands = array_map(static fn (Stand $s): array => [
            'from' => $s->from, 'to' => $s->to, 'count' => $s->count,
            'mean' => array_map(static fn (int $c): float => round(1000.0 * ($s->mean[$c] - $zero[$c]), 2), [0, 1, 2]),
            'spreadPlan' => round(1000.0 * $s->spreadPlan, 2), 'spreadUp' => round(1000.0 * $s->spreadUp, 2),
        ], $changes->stands);
        $moves = array_map(static fn (Move $m): array => [
            'from' => $m->from, 'to' => $m->to, 'shift' => array_map(static fn (float $v): float => round(1000.0 * $v, 2), $m->shift),
            'confidence' => $m->confidence,
        ], $changes->moves);

        return [
            'summary' => [
                'first' => $first->sinceEpoch(), 'epochs' => \count($track), 'fixed' => array_sum($fixed),
                'ratio' => $solved->solution->ratio,
                'stands' => $stands, 'moves' => $moves, 'keep' => self::proposal($changes), 'warnings' => $solved->warnings,
            ],
            'seconds' => $seconds, 'e' => $mm($e, 0), 'n' => $mm($n, 1), 'u' => $mm($u, 2), 'fixed' => $fixed, 'satellites' => $satellites,
        ];
    }

    /**
     * What to keep: the first place, which is the one the receiver was set up at, unless that is too short to be fixed.
     *
     * @return ?int number of the stand; null where there is nothing to choose
     */
    private static function proposal(ChangePoints $changes): ?int
    {
        if (\count($changes->stands) < 2) {
            return null;
        }
        $longest = 0;
        foreach ($changes->stands as $i => $s) {
            $before = $changes->stands[$longest];
            $longest = $s->to - $s->from > $before->to - $before->from ? $i : $longest;
        }

        return $changes->stands[0]->to - $changes->stands[0]->from >= self::ENOUGH ? 0 : $longest;
    }
}
