<?php

declare(strict_types=1);

namespace App\Checks;

use App\Checks\CheckPoint\CheckPointMaker;
use App\Course\CountedStage;
use App\Course\Course;
use App\Course\Stage;
use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use Mensura\Deviation\DeviationStatistics;

final class ChecksStage implements Stage
{
    private const MOST_HITS = 10;

    public function __construct(private readonly Results $results, private readonly BandsRepository $bands)
    {
    }

    public static function place(): int
    {
        return Course::CHECKS;
    }

    public function state(Project $project, array $current, array $stale): StageView
    {
        $counted = CountedStage::of('checks', 'Checks', [DeviationMaker::PREFIX, CheckPointMaker::PREFIX], 'check', $current, $stale);
        $out = 'done' === $counted->state ? $this->outOfTolerance($project, $current) : 0;

        return 0 === $out ? $counted : new StageView('checks', 'Checks', 'attention', "$out out of tolerance");
    }

    /**
     * How many comparisons have a place outside the band that holds zero.
     *
     * @param array<string, Result> $current
     */
    private function outOfTolerance(Project $project, array $current): int
    {
        $out = 0;
        foreach ($current as $slot => $result) {
            if (str_starts_with($slot, DeviationMaker::PREFIX)) {
                $limits = $this->bands->of($project, $result->number())->limits();
                $within = DeviationStatistics::band($limits, 0.0);
                foreach (array_filter([$result->summary['min'], $result->summary['max']], is_numeric(...)) as $d) {
                    if (DeviationStatistics::band($limits, (float) $d) !== $within) {
                        ++$out;
                        break;
                    }
                }
            }
        }

        return $out;
    }

    public function find(Project $project, string $like): array
    {
        $hits = [];
        foreach ($this->results->current($project) as $slot => $result) {
            $name = (string) ($result->summary['name'] ?? '');
            if (str_starts_with($slot, DeviationMaker::PREFIX) && false !== mb_stripos($name, $like)) {
                $hits[] = new HitView('comparison', $name, 'comparison', 'checks', (string) $result->number());
            }
        }

        return \array_slice($hits, 0, self::MOST_HITS);
    }
}
