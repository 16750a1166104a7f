<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Clouds\KnownPoints;
use App\Clouds\View\PassesView;
use App\Clouds\View\PassView;
use App\Design\CloudFiles;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\Correction;
use Mensura\Passes\CrossSection;

/** The passes of a project, and what is seen across the way. */
final class PassPage
{
    private const HALF = 12.0;
    private const THICK = 1.0;
    /** Points of each drive in a section; of more, as many evenly. */
    private const MOST = 4_000;

    public function __construct(
        private readonly Results $results, private readonly DriveFiles $drives, private readonly CloudFiles $clouds,
        private readonly FileStore $store, private readonly KnownPoints $known,
    ) {
    }

    public function of(Project $project): PassesView
    {
        $stale = $this->results->stale($project);
        $views = [];
        foreach ($this->all($project) as $number => $result) {
            $views[] = self::view($number, $result, $stale[$result->slot] ?? []);
        }

        return new PassesView(
            $views, $this->drives->trajectories($project), $this->clouds->of($project), array_values($this->known->of($project)),
        );
    }

    /** @return array<int, Result> by number */
    public function all(Project $project): array
    {
        $passes = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (str_starts_with($slot, PassMaker::PREFIX)) {
                $passes[$result->number()] = $result;
            }
        }
        ksort($passes);

        return $passes;
    }

    public function correction(Result $pass): Correction
    {
        return $this->kept($pass, 'correction');
    }

    private function kept(Result $pass, string $which): Correction
    {
        // Passes of before there were targets hold nothing of what stays.
        ['times' => $times, 'shifts' => $shifts] = $this->store->getJson($pass->output)[$which] ?? ['times' => [], 'shifts' => []];

        return [] === $times ? Correction::none() : new Correction($times, $shifts);
    }

    /**
     * Both scans across the way of the pass, the pass as it is corrected.
     *
     * @return array{
     *     ends: array{float, float, float, float}, pass: array{list<float>, list<float>}, reference: array{list<float>, list<float>},
     * }
     *
     * @throws UnusableInput
     */
    public function section(Project $project, Result $pass, float $along): array
    {
        $s = PassSettings::fromArray($pass->settings);
        $correction = $this->correction($pass);
        $section = CrossSection::at(
            $this->drives->trajectory($project, $s->trajectory, '/trajectory')->corrected($correction), $along, self::HALF, self::THICK,
        );
        $own = $there = [[], []];
        foreach ($this->drives->points($project, $s->cloud, '/cloud') as [$t, $x, $y, $z]) {
            $own = self::more($own, $section->of(...$correction->apply($t, $x, $y, $z)));
        }
        $stays = $this->kept($pass, 'stays');
        foreach ($this->drives->points($project, $s->referenceCloud, '/referenceCloud') as [$t, $x, $y, $z]) {
            $there = self::more($there, $section->of(...$stays->apply($t, $x, $y, $z)));
        }

        return ['ends' => $section->ends(), 'pass' => self::some($own), 'reference' => self::some($there)];
    }

    /**
     * @param array{list<float>, list<float>} $all
     * @param array{list<float>, list<float>} $more
     *
     * @return array{list<float>, list<float>}
     */
    private static function more(array $all, array $more): array
    {
        return [[...$all[0], ...$more[0]], [...$all[1], ...$more[1]]];
    }

    /**
     * @param array{list<float>, list<float>} $all
     *
     * @return array{list<float>, list<float>}
     */
    private static function some(array $all): array
    {
        $step = max(1, (int) ceil(\count($all[0]) / self::MOST));
        $isKept = static fn (int $i): bool => 0 === $i % $step;
        $kept = static fn (array $axis): array => array_values(array_map(
            static fn (float $v): float => round($v, 4), array_filter($axis, $isKept, \ARRAY_FILTER_USE_KEY),
        ));

        return [$kept($all[0]), $kept($all[1])];
    }

    /** @param list<string> $stale */
    private static function view(int $number, Result $r, array $stale): PassView
    {
        $p = PassSettings::fromArray($r->settings);
        $s = $r->summary;

        return new PassView(
            $number, $p->name, (string) $s['of'], (string) $s['onto'], $p->trajectory, $p->cloud, $p->referenceTrajectory,
            $p->referenceCloud, $p->every, $p->isTime, $p->radius, $p->preShift, (string) $s['status'], $s['reason'] ?? null,
            (int) $s['stations'], (int) $s['used'], (float) $s['length'], $s['rmsBefore'] ?? null, $s['rmsAfter'] ?? null,
            (float) $s['greatest'], $p->targets, $s['control'] ?? null, $s['check'] ?? null, $r->run, $r->output, $r->at(),
            $r->authorName, $stale,
        );
    }
}
