<?php

declare(strict_types=1);

namespace App\Result;

use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Project\Project;
use App\Project\ProjectRepository;
use Psr\Cache\CacheItemPoolInterface;

/** Computed things and what they rest on. Stale is computed, never stored: an input differs, or rests on something stale. */
final class Results
{
    public function __construct(
        private readonly ResultRepository $results,
        private readonly ContentVersions $versions,
        private readonly ProjectRepository $projects,
        private readonly LedgerEntryRepository $entries,
        private readonly CacheItemPoolInterface $cache,
    ) {
    }

    /**
     * Reads what a computation needs together with the versions of what it reads, as of one moment: what changes while it
     * computes then makes its result stale.
     *
     * @template T
     *
     * @param list<string>         $contents what it rests on directly
     * @param list<string>         $slots    results it rests on; a slot without a result is left out
     * @param \Closure(Project): T $read     given the project as it is at that moment
     *
     * @return array{Basis, T}
     */
    public function reading(Project $project, array $contents, array $slots, \Closure $read): array
    {
        return $this->projects->atOneMoment(function () use ($project, $contents, $slots, $read): array {
            $project = $this->projects->fresh($project->id());
            $inputs = [];
            foreach ($contents as $content) {
                $inputs[$content] = $this->versions->of($project, $content);
            }
            $current = $this->current($project);
            foreach ($slots as $slot) {
                if (isset($current[$slot])) {
                    $inputs[Result::RESULT.$slot] = $current[$slot]->output;
                }
            }

            return [new Basis($inputs), $read($project)];
        });
    }

    public function record(Project $project, Journal $journal, Outcome $o): void
    {
        $run = 1 + $this->results->lastRun($project, $o->slot);
        $this->results->add(new Result(
            $project, $o->slot, $o->kind, mb_substr($o->label, 0, 200), $run, $o->basis->inputs, $o->settings, $o->summary, $o->output,
            $journal->authorName, $journal->at,
        ));
    }

    /** @return array<string, Result> the newest run of every slot */
    public function current(Project $project): array
    {
        $current = [];
        foreach ($this->results->newest($project) as $result) {
            $current[$result->slot] = $result;
        }

        return $current;
    }

    /** @return list<Result> every run of a slot, newest first */
    public function runs(Project $project, string $slot): array
    {
        return $this->results->runs($project, $slot);
    }

    public function nextRun(Project $project, string $slot): int
    {
        return 1 + $this->results->lastRun($project, $slot);
    }

    /**
     * Which current results are stale and why, in the order they would be recomputed. Kept for a revision of the project:
     * the page asks every few seconds, and the hashes of two hundred thousand points take their time.
     *
     * @return array<string, list<string>> reasons by slot
     */
    public function stale(Project $project): array
    {
        $revision = $this->projects->committedRevision($project->id());
        if (null === $revision) {
            return $this->computed($project); // within a change: what is there now need not stay
        }
        $item = $this->cache->getItem(\sprintf(
            'stale.%d.%d.%s', $project->id(), $revision, $this->entries->newest($project, 1)[0]->changes ?? '',
        ));
        if (!$item->isHit()) {
            $item->set($this->computed($project))->expiresAfter(86400);
            $this->cache->save($item);
        }

        return $item->get();
    }

    /** @return array<string, list<string>> */
    private function computed(Project $project): array
    {
        $project = $this->projects->fresh($project->id());
        $current = $this->current($project);
        $versions = [];
        $stale = [];
        foreach (self::inOrder($current) as $slot) {
            $reasons = [];
            foreach ($current[$slot]->inputs as $input => $version) {
                if (str_starts_with($input, Result::RESULT)) {
                    $reasons[] = self::older(substr($input, \strlen(Result::RESULT)), $version, $current, $stale);
                    continue;
                }
                $versions[$input] ??= $this->versions->of($project, $input);
                $reasons[] = $versions[$input] === $version ? null : \sprintf('%s changed', $this->versions->words($input));
            }
            if ([] !== $reasons = array_values(array_filter($reasons))) {
                $stale[$slot] = $reasons;
            }
        }

        return $stale;
    }

    /**
     * @param array<string, Result>       $current
     * @param array<string, list<string>> $stale
     */
    private static function older(string $slot, string $output, array $current, array $stale): ?string
    {
        return match (true) {
            !isset($current[$slot]) => \sprintf('it rests on %s, which is no longer there', $slot),
            isset($stale[$slot]) => 'rests on stale '.$current[$slot]->inWords(),
            $current[$slot]->output !== $output => 'newer '.$current[$slot]->inWords(),
            default => null,
        };
    }

    /**
     * @param array<string, Result> $current
     *
     * @return list<string>
     */
    private static function inOrder(array $current): array
    {
        $order = [];
        $visit = static function (string $slot) use (&$visit, &$order, $current): void {
            if (isset($order[$slot]) || !isset($current[$slot])) {
                return;
            }
            foreach ($current[$slot]->restsOn() as $below) {
                $visit($below);
            }
            $order[$slot] = true;
        };
        foreach (array_keys($current) as $slot) {
            $visit($slot);
        }

        return array_keys($order);
    }
}
