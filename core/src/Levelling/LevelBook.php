<?php

declare(strict_types=1);

namespace Mensura\Levelling;

use Mensura\Fault\UnusableInput;
use Mensura\Graph\CycleBasis;

/**
 * Works out a levelling book: differences, heights, misclosures of sections and loops, and the lines for a network.
 *
 * A run is cut at the benchmarks it passes. The misclosure of a section between two of them is shared out by the length or
 * the number of setups so far; sections with one known end carry heights on (textbooks of levelling; common practice).
 */
final class LevelBook
{
    /** Rounding of readings and limits, metres. */
    private const ROUNDING = 1e-9;

    /** @var array<string, list<LevelSetup>> */
    private array $setups = [];

    /** @var array<string, float> heights of known ends, keyed "p" and their name */
    private array $known = [];

    /** @var array<string, LevelledPoint> */
    private array $points = [];

    /** @var list<string> */
    private array $warnings = [];

    /**
     * @param array<string, float> $benchmarks heights by name, keyed "p" and their name
     * @param list<Run>            $runs
     */
    private function __construct(
        private readonly LevelSettings $settings,
        private readonly array $benchmarks,
        private readonly array $runs,
        private readonly bool $fromInside,
    ) {
    }

    /**
     * @param list<array{string, float}> $benchmarks name and height
     * @param list<Run>                  $runs
     * @param bool                       $fromInside whether a run may begin or end on a point inside another, where nothing else reaches it
     *
     * @throws UnusableInput naming the run: a pattern that breaks, a run that no known height reaches
     */
    public static function work(LevelSettings $settings, array $benchmarks, array $runs, bool $fromInside = false): LevelledBook
    {
        $known = [];
        foreach ($benchmarks as [$id, $h]) {
            $known["p$id"] = $h;
        }

        return (new self($settings, $known, $runs, $fromInside))->workOut($benchmarks);
    }

    /** @param list<array{string, float}> $benchmarks */
    private function workOut(array $benchmarks): LevelledBook
    {
        $passed = [];
        foreach ($this->runs as $i => $run) {
            $setups = $this->setups["r$run->id"] = SetupsOfRun::of($run, $this->settings, "runs[$i]");
            foreach ($setups as $k => $setup) {
                $passed["p$setup->backPoint"] = $passed["p$setup->forePoint"] = true;
                $this->remark($run, $k + 1, $setup);
            }
        }
        foreach ($benchmarks as [$id, $h]) {
            if (isset($passed["p$id"])) {
                $this->points["p$id"] = new LevelledPoint($id, $h, false, LevelledPoint::BENCHMARK, null);
            }
        }
        $this->known = $this->benchmarks;
        $sections = [];
        foreach ($this->runs as $run) {
            array_push($sections, ...$this->sections($run));
        }
        $this->workSections($sections);

        return new LevelledBook(
            $this->setups, $sections, array_values($this->points), $this->loops(), $this->network(), $this->warnings,
        );
    }

    private function remark(Run $run, int $number, LevelSetup $setup): void
    {
        $limit = $this->settings->repeatLimit;
        if (null !== $limit && null !== $setup->repeat && $setup->repeat > $limit + self::ROUNDING) {
            $this->warnings[] = \sprintf(
                'run %s, setup %d (%s to %s): repeated %s differ by %.5f m, more than %s m', $run->id, $number, $setup->backPoint,
                $setup->forePoint, Pattern::BackForeForeBack === $run->pattern ? 'differences' : 'readings', $setup->repeat, $limit,
            );
        }
        if ($setup->uncurved) {
            $this->warnings[] = \sprintf(
                'run %s, setup %d (%s to %s): a sight length is missing, so there is no correction for curvature', $run->id, $number,
                $setup->backPoint, $setup->forePoint,
            );
        }
    }

    /** @return list<Section> */
    private function sections(Run $run): array
    {
        $sections = [];
        $open = [];
        $setups = $this->setups["r$run->id"];
        foreach ($setups as $k => $setup) {
            $open[] = $setup;
            if (!isset($this->benchmarks["p$setup->forePoint"]) && $k + 1 < \count($setups)) {
                continue;
            }
            [$from, $to] = ['p'.$open[0]->backPoint, "p$setup->forePoint"];
            $given = $from === $to ? 0.0 : (isset($this->benchmarks[$from], $this->benchmarks[$to])
                ? $this->benchmarks[$to] - $this->benchmarks[$from] : null);
            $sections[] = $section = new Section($run->id, $open, $given, $this->settings);
            $open = [];
            if (null === $section->allowable) {
                $this->warnings[] = \sprintf(
                    'run %s, %s to %s: no allowable misclosure, because %s', $run->id, $section->from, $section->to,
                    null === $this->settings->allowable ? 'settings.allowable is not given'
                        : 'a sight length is missing and the allowable goes by length; give it per setup instead',
                );
            }
        }

        return $sections;
    }

    /** @param list<Section> $sections */
    private function workSections(array $sections): void
    {
        $waiting = $sections;
        while ([] !== $waiting) {
            $next = null;
            foreach ($waiting as $i => $section) {
                if (isset($this->known["p$section->from"]) || isset($this->known["p$section->to"])) {
                    $next = $i;
                    break;
                }
            }
            if (null === $next && $this->fromInside) {
                $next = $this->inside($waiting);
            }
            if (null === $next) {
                $section = $waiting[array_key_first($waiting)];
                throw new UnusableInput($this->pathOf($section->run), \sprintf(
                    'run %s, %s to %s: no known height reaches it; give a benchmark for one of its ends', $section->run, $section->from,
                    $section->to,
                ));
            }
            $this->workSection($waiting[$next]);
            unset($waiting[$next]);
        }
    }

    /**
     * The first section that begins or ends on a point which another run has given a height on its way; that end is known then.
     *
     * @param array<int, Section> $waiting
     */
    private function inside(array $waiting): ?int
    {
        foreach ($waiting as $i => $section) {
            foreach (["p$section->from", "p$section->to"] as $end) {
                if (isset($this->points[$end])) {
                    $this->known[$end] = $this->points[$end]->h;

                    return $i;
                }
            }
        }

        return null;
    }

    private function pathOf(string $id): string
    {
        foreach ($this->runs as $i => $run) {
            if ($run->id === $id) {
                return "runs[$i]";
            }
        }

        return 'runs';
    }

    private function workSection(Section $section): void
    {
        $byLength = LevelSettings::BY_LENGTH === $this->settings->distribute;
        $misclosure = $section->misclosure;
        if (null !== $misclosure && $byLength && null === $section->length) {
            $byLength = false;
            $this->warnings[] = \sprintf(
                'run %s, %s to %s: a sight length is missing, so the misclosure is shared out by setups',
                $section->run, $section->from, $section->to,
            );
        }
        // From its benchmark, also backwards; else from its first known end.
        $ends = [$section->from, $section->to];
        $isForward = isset($this->benchmarks["p$ends[0]"])
            || !isset($this->benchmarks["p$ends[1]"]) && isset($this->known["p$ends[0]"]);
        $h = $isForward ? $this->known["p$ends[0]"] : $this->known["p$ends[1]"] - $section->difference;
        $total = (float) ($byLength ? $section->length : $section->setupCount);
        $sofar = $share = 0.0;
        $isShared = null !== $misclosure;
        $last = $section->setupCount - 1;
        if (!$isForward) {
            $this->determine($section->from, $h, false, LevelledPoint::TURNING, $section->run);
            $this->known["p$section->from"] ??= $h;
        }
        foreach ($section->setups as $k => $setup) {
            foreach ($setup->intermediates as [$point, $reading]) {
                if (!isset($this->benchmarks["p$point"])) {
                    $this->determine($point, $h + $setup->back - $reading + $share, $isShared, LevelledPoint::INTERMEDIATE, $section->run);
                }
            }
            $h += $setup->difference();
            $sofar += (float) ($byLength ? $setup->length() : 1.0);
            $share = null === $misclosure || !($total > 0.0) ? 0.0 : -$misclosure * $sofar / $total;
            $isEnd = $k === $last;
            if ($isEnd && (!$isForward || $section->from === $section->to)) {
                continue; // the end it was computed from
            }
            $this->determine($setup->forePoint, $h + $share, $isShared, LevelledPoint::TURNING, $section->run);
            if ($isEnd) {
                $this->known["p$setup->forePoint"] ??= $h + $share;
            }
        }
    }

    /** @param LevelledPoint::TURNING|LevelledPoint::INTERMEDIATE $role */
    private function determine(string $id, float $h, bool $adjusted, string $role, string $run): void
    {
        if (isset($this->benchmarks["p$id"])) {
            return;
        }
        $kept = $this->points["p$id"] ?? null;
        if (null === $kept) {
            $this->points["p$id"] = new LevelledPoint($id, $h, $adjusted, $role, $run);
        } else {
            $kept->again[] = ['run' => $run, 'h' => $h, 'difference' => $h - $kept->h];
        }
    }

    /** @return list<Loop> */
    private function loops(): array
    {
        $edges = $runOf = [];
        foreach ($this->runs as $run) {
            $setups = $this->setups["r$run->id"];
            if ([] === $setups) {
                continue;
            }
            $whole = new Section($run->id, $setups, null, $this->settings);
            if (isset($this->benchmarks["p$whole->from"]) || isset($this->benchmarks["p$whole->to"]) || $whole->from === $whole->to) {
                continue;
            }
            $edges[] = [$whole->from, $whole->to, $whole->length ?? (float) $whole->setupCount];
            $runOf[] = $whole;
        }
        $loops = [];
        foreach (CycleBasis::of($edges) as $cycle) {
            $misclosure = 0.0;
            $length = 0.0;
            $setups = 0;
            $runs = [];
            foreach ($cycle as [$i, $sense]) {
                $run = $runOf[$i];
                $runs[] = $run->run;
                $misclosure += $sense * $run->difference;
                $length = null === $length || null === $run->length ? null : $length + $run->length;
                $setups += $run->setupCount;
            }
            $allowable = $this->settings->allowableOf($length, $setups);
            if (null === $allowable) {
                $this->warnings[] = \sprintf('loop %s: no allowable misclosure, for want of %s', implode(', ', $runs),
                    null === $this->settings->allowable ? 'settings.allowable' : 'sight lengths');
            }
            $loops[] = new Loop($runs, $misclosure, $length, $setups, $allowable);
        }

        return $loops;
    }

    /** @return list<array{run: string, from: string, to: string, value: float, length: ?float, setups: int}> */
    private function network(): array
    {
        $runsOf = [];
        foreach ($this->setups as $key => $setups) {
            foreach ($setups as $setup) {
                $runsOf["p$setup->backPoint"][$key] = true;
                $runsOf["p$setup->forePoint"][$key] = true;
            }
        }
        $lines = [];
        foreach ($this->runs as $run) {
            $open = [];
            $setups = $this->setups["r$run->id"];
            foreach ($setups as $k => $setup) {
                $open[] = $setup;
                $to = "p$setup->forePoint";
                if (!isset($this->benchmarks[$to]) && \count($runsOf[$to]) < 2 && $k + 1 < \count($setups)) {
                    continue;
                }
                $line = new Section($run->id, $open, null, $this->settings);
                $open = [];
                if ($line->from !== $line->to) {
                    $lines[] = [
                        'run' => $run->id, 'from' => $line->from, 'to' => $line->to, 'value' => $line->difference,
                        'length' => $line->length,
                        'setups' => $line->setupCount,
                    ];
                } else {
                    $this->warnings[] = \sprintf(
                        'run %s returns to %s without passing another junction or benchmark; the network gets no difference from it',
                        $run->id, $line->to,
                    );
                }
            }
        }

        return $lines;
    }
}
