<?php

declare(strict_types=1);

namespace App\Checks;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\RecordNumbered;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Deviation\Along;
use Mensura\Deviation\DeviationStatistics;
use Mensura\Deviation\FittedPlane;

/** Compares measured points with a reference and keeps every deviation. */
final class DeviationMaker implements Recompute
{
    public const PREFIX = 'deviation:';

    public function __construct(
        private readonly MeasuredPlaces $measured,
        private readonly ComparedWith $comparedWith,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'deviation';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = DeviationSettings::fromArray($newest->settings);
        $this->make($context->project, $context->authorName, $newest->number(), $settings, $context->report(...));
    }

    /**
     * @param ?int                           $number   of the comparison that is made anew; null for a new one
     * @param ?\Closure(string, float): void $progress
     *
     * @return int number it is kept under
     */
    public function make(
        Project $project, string $authorName, ?int $number, DeviationSettings $settings, ?\Closure $progress = null, ?string $jobId = null,
    ): int {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        [$contents, $slots] = $settings->restsOn();
        $report('points', 0.05);
        [$basis, [$names, $x, $y, $z, $reference, $words]] = $this->results->reading(
            $project, $contents, $slots, function (Project $project) use ($settings): array {
                [$names, $x, $y, $z] = $this->measured->of($project, $settings);

                return [$names, $x, $y, $z, ...$this->comparedWith->of($project, $settings, $x, $y, $z)];
            },
        );
        $report('deviations', 0.15);
        $along = Along::from($settings->along);
        $deviations = $reference->deviations($x, $y, $z, $along, static fn (float $done) => $report('deviations', 0.15 + 0.75 * $done));
        $report('keeping', 0.95);
        $s = new DeviationStatistics($deviations, $settings->ignore);
        $document = [
            'names' => $names, 'e' => self::rounded($x, 4), 'n' => self::rounded($y, 4), 'h' => self::rounded($z, 4),
            'd' => self::rounded($deviations, 6),
        ];
        $summary = [
            'name' => $settings->name, 'against' => $words, 'measured' => $s->measured, 'used' => $s->used, 'beyond' => $s->beyond,
            'outside' => $s->outside, 'mean' => $s->mean, 'rms' => $s->rms, 'sd' => $s->sd, 'min' => $s->min, 'max' => $s->max,
            'median' => $s->median, 'nearestBeyond' => $s->nearestBeyond, 'steepest' => $reference->steepest(),
            'planeSd' => $reference instanceof FittedPlane ? $reference->sd : null,
        ];
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Deviations of '.$settings->name, $basis, (array) $settings, $summary,
            $this->store->putJson($document),
        );
        $mean = null === $s->mean ? '' : \sprintf(', mean %+.1f mm, rms %.1f mm', 1000.0 * $s->mean, 1000.0 * $s->rms);
        $title = \sprintf('Compared %s with %s: %d of %d points%s', $settings->name, $words, $s->used, $s->measured, $mean);
        $record = new RecordNumbered($this->results, $outcome, 'compare', $title);
        $this->ledger->carryOut($project, $authorName, $record, $jobId);

        return $record->number;
    }

    /**
     * @param list<float> $values
     *
     * @return list<?float> null for NAN
     */
    private static function rounded(array $values, int $decimals): array
    {
        return array_map(static fn (float $v): ?float => is_nan($v) ? null : round($v, $decimals), $values);
    }
}
