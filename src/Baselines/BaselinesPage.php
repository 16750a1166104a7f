<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Baselines\Request\AllowanceRequest;
use App\Baselines\View\BaselineRunView;
use App\Baselines\View\BaselinesView;
use App\Baselines\View\BaselineView;
use App\Baselines\View\ClosureView;
use App\Baselines\View\EpochsView;
use App\Baselines\View\MoveView;
use App\Baselines\View\OccupationView;
use App\Baselines\View\StandView;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Survey\AcceptedVectors;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\BaselineSolution;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\LeapSeconds;
use Mensura\Gnss\VectorLoop;
use Mensura\Gnss\VectorLoops;
use Mensura\Gnss\VectorRepeat;

/** The Baselines stage of a project. */
final class BaselinesPage
{
    public function __construct(
        private readonly OccupationRepository $occupations,
        private readonly Pairs $pairs,
        private readonly MarkPlace $places,
        private readonly MarkerQuestion $questions,
        private readonly OrbitFiles $orbits,
        private readonly Results $results,
        private readonly Recordings $recordings,
    ) {
    }

    public function of(Project $project, AllowanceRequest $allowance): BaselinesView
    {
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $accepted = ($current[AcceptedVectors::SLOT] ?? null)->inputs ?? [];
        $occupations = $this->occupations->of($project);
        $pairs = $this->pairs->of($project);
        $baselines = array_map(fn (Pair $p): BaselineView => new BaselineView(
            $p->key(), $p->base->id(), $p->rover->id(), $p->base->marker, $p->rover->marker, $p->session, $p->from, $p->to,
            $p->isIndependent,
            $p->length, isset($current[$p->slot()]) ? $this->runs($project, $p->slot()) : [], $stale[$p->slot()] ?? [],
            isset($accepted[Result::RESULT.$p->slot()]), self::epochs($current, $stale, Slots::EPOCHS.$p->key()), $p->rover->moves,
        ), $pairs);

        return new BaselinesView(
            array_map(fn (Occupation $o): OccupationView => $this->occupation($project, $o), $occupations), $baselines,
            self::closures($pairs, $current, $allowance), $allowance->constant / 1000.0, $allowance->ppm,
            $this->orbits->hasBroadcast($project),
            $this->orbits->hasPrecise($project), [] === $occupations ? null : self::leap(
                $occupations[0]->recorded()->from,
            ), $this->recordings->of($project),
        );
    }

    private function occupation(Project $project, Occupation $o): OccupationView
    {
        $r = $o->recorded();
        $known = $this->places->of($project, $o->marker);
        $place = $known ?? $r->place;
        $grid = null === $place ? null : $this->places->inProject($project, $place);
        [$question, $suggested] = $this->questions->of($project, $o);
        try {
            $vertical = $o->height()->vertical();
            $words = $o->height()->words();
        } catch (UnusableInput $e) {
            [$vertical, $words] = [null, $e->reason];
        }

        return new OccupationView(
            $o->id(), $o->version(), $o->marker, $o->file->name(), $r->from, $r->to, $o->trimFrom, $o->trimTo, $r->interval, $r->epochs,
            \count($r->satellites), $r->receiver, $o->antenna, $o->heightKind, $o->heightValue, $o->heightRadius, $o->heightAbove,
            $vertical,
            $words, $grid[0] ?? null, $grid[1] ?? null, $grid[2] ?? null,
            null !== $known ? 'project' : (null === $grid ? '' : 'file'), $o->moves ? '' : $question, $suggested, $o->moves,
        );
    }

    /** @return list<BaselineRunView> newest first */
    private function runs(Project $project, string $slot): array
    {
        $views = [];
        $list = $this->results->runs($project, $slot);
        foreach ($list as $i => $run) {
            $s = $run->summary;
            $before = $list[$i + 1]->summary ?? null;
            $less = null;
            if (null !== $before && $before['fromName'] === $s['fromName'] && $before['toName'] === $s['toName']) {
                $less = Horizon::of(self::three($s['place']))->components(
                    $s['vector'][0] - $before['vector'][0], $s['vector'][1] - $before['vector'][1], $s['vector'][2] - $before['vector'][2],
                );
            }
            $views[] = new BaselineRunView(
                $run->run, (string) $s['solution'], $s['ratio'], (float) $s['rms'], (float) $s['sdPlan'], (float) $s['sdUp'],
                self::three($s['vector']), $less, (float) $s['length'], (int) $s['epochs'], $s['from'], $s['to'], (int) $s['satellites'],
                (int) $s['slips'], ProcessingSettings::fromArray($run->settings)->words(), (string) $s['baseFrom'],
                array_values((array) $s['warnings']), $run->at(), $run->authorName, $run->output,
            );
        }

        return $views;
    }

    /**
     * @param array<string, Result>       $current
     * @param array<string, list<string>> $stale
     */
    private static function epochs(array $current, array $stale, string $slot): ?EpochsView
    {
        $result = $current[$slot] ?? null;
        if (null === $result) {
            return null;
        }
        $s = $result->summary;

        return new EpochsView(
            (string) $s['mark'], (float) $s['first'], (int) $s['epochs'], (int) $s['fixed'],
            array_values(array_map(static fn (array $t): StandView => new StandView(
                (float) $t['from'], (float) $t['to'], (int) $t['count'], self::three($t['mean']), (float) $t['spreadPlan'],
                (float) $t['spreadUp'],
            ), (array) $s['stands'])),
            array_values(array_map(static fn (array $m): MoveView => new MoveView(
                (float) $m['from'], (float) $m['to'], self::three($m['shift']), (float) $m['confidence'],
            ), (array) $s['moves'])),
            $s['keep'], $result->output, $stale[$slot] ?? [], array_values((array) $s['warnings']),
        );
    }

    /**
     * @param list<Pair>            $pairs
     * @param array<string, Result> $current
     *
     * @return list<ClosureView> the worst first
     */
    private static function closures(array $pairs, array $current, AllowanceRequest $allowance): array
    {
        $vectors = $keys = [];
        $place = null;
        foreach ($pairs as $pair) {
            $s = ($current[$pair->slot()] ?? null)?->summary;
            if (null === $s || $pair->rover->moves || BaselineSolution::CODE === $s['solution']) {
                continue;
            }
            $place ??= self::three($s['place']);
            $keys[] = $pair->key();
            $vectors[] = [
                'from' => (string) $s['fromName'], 'to' => (string) $s['toName'], 'session' => (string) $s['session'],
                'vector' => self::three($s['vector']),
            ];
        }
        if (null === $place) {
            return [];
        }
        $found = new VectorLoops($vectors, Horizon::of($place), $allowance->constant / 1000.0, $allowance->ppm);
        $key = static fn (array $which): array => array_values(array_map(static fn (int $i): string => $keys[$i], $which));
        $views = [
            ...array_map(static fn (VectorLoop $l): ClosureView => new ClosureView(
                implode(
                    ' ', $key($l->vectors),
                ), 'loop', $l->marks, $key($l->vectors), $l->sessions, $l->length, $l->closure, $l->size(), $l->allowed,
                $l->isIndependent(),
            ), $found->loops),
            ...array_map(static fn (VectorRepeat $r): ClosureView => new ClosureView(
                implode(
                    ' ', $key($r->vectors),
                ), 'repeat', [$r->from, $r->to], $key($r->vectors), $r->sessions, $r->length, $r->difference, $r->size(),
                $r->allowed, $r->sessions[0] !== $r->sessions[1],
            ), $found->repeats),
        ];
        usort($views, static fn (ClosureView $a, ClosureView $b): int => $b->size / $b->allowed <=> $a->size / $a->allowed);

        return $views;
    }

    private static function leap(float $seconds): float
    {
        return (float) LeapSeconds::at(gmdate('Y-m-d', (int) $seconds + (int) gmmktime(0, 0, 0, 1, 6, 1980)));
    }

    /** @return array{float, float, float} */
    private static function three(mixed $values): array
    {
        \assert(\is_array($values));

        return [(float) $values[0], (float) $values[1], (float) $values[2]];
    }
}
