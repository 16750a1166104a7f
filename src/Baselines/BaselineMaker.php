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

/** Processes static baselines, many in a job, and keeps their results. */
final class BaselineMaker implements Recompute
{
    public function __construct(
        private readonly Pairs $pairs,
        private readonly Processing $processing,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
        private readonly Tracks $tracks,
    ) {
    }

    public static function kind(): string
    {
        return 'baseline';
    }

    public function again(JobContext $context, Result $newest): void
    {
        [$a, $b] = array_map(intval(...), explode('-', substr($newest->slot, \strlen(Slots::STATIC))));
        $base = (int) ($newest->settings['base'] ?? $a);
        $failed = $this->make(
            $context->project, $context->authorName, [[$base, $base === $a ? $b : $a]], ProcessingSettings::fromArray($newest->settings),
            $context->report(...),
        );
        if ([] !== $failed) {
            throw new UnusableInput($newest->label, implode('; ', $failed));
        }
    }

    /**
     * @param list<list<int>>                $chosen   pairs of occupations, base first
     * @param \Closure(string, float): void  $progress
     *
     * @return array<string, string> why pairs could not be processed, by their names
     */
    public function make(
        Project $project, string $authorName, array $chosen, ProcessingSettings $settings, \Closure $progress, ?string $jobId = null,
    ): array {
        $outcomes = $failed = [];
        foreach ($chosen as $i => $ids) {
            $pair = $this->pairs->chosen($project, $ids);
            $progress(\sprintf('%s (%d of %d)', $pair->words(), $i + 1, \count($chosen)), $i / \count($chosen));
            try {
                $outcomes[] = $this->one($project, $ids, $settings);
            } catch (UnusableInput $e) {
                $failed[$pair->words()] = $e->getMessage();
            }
        }
        if ([] === $outcomes) {
            throw new UnusableInput('', \sprintf('none could be processed. %s', implode('; ', array_map(
                static fn (string $which, string $why): string => "$which: $why", array_keys($failed), $failed,
            ))));
        }
        $this->ledger->carryOut($project, $authorName, new RecordBaselines($this->results, $outcomes, $failed, $settings), $jobId);

        return $failed;
    }

    /** @param list<int> $ids */
    private function one(Project $project, array $ids, ProcessingSettings $settings): Outcome
    {
        $contents = ['occupation:'.$ids[0], 'occupation:'.$ids[1], 'orbits', 'antennas'];
        [
            $basis, [$pair, $solved],
        ] = $this->results->reading($project, $contents, [], function (Project $project) use ($ids, $settings): array {
            $pair = $this->pairs->chosen($project, $ids);

            $mode = $pair->rover->moves ? BaselineProcessor::KINEMATIC : BaselineProcessor::STATIC;

            return [$pair, $this->processing->solve($project, $pair->base, $pair->rover, $settings, $mode)];
        });

        return new Outcome(
            $pair->slot(), self::kind(), 'Baseline '.$pair->words(), $basis, ['base' => $pair->base->id()] + (array) $settings,
            [
                'fromName' => $pair->base->marker, 'toName' => $pair->rover->marker, 'session' => $pair->session,
                'moves' => $pair->rover->moves,
            ] + $solved->summary(),
            $this->store->putJson($solved->document() + ($pair->rover->moves ? $this->tracks->of($project, $solved) : [])),
        );
    }
}
