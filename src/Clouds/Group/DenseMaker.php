<?php

declare(strict_types=1);

namespace App\Clouds\Group;

use App\Clouds\CloudMaker;
use App\Clouds\CloudSettings;
use App\Clouds\Flight\FlightFiles;
use App\Clouds\Flight\FlightMaker;
use App\Clouds\Flight\FlightSettings;
use App\Clouds\Flight\ImagesHeld;
use App\Clouds\Flight\OrthoMaker;
use App\Clouds\MadeClouds;
use App\Clouds\WorkFolder;
use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\RecordNumbered;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\Cloud\LasOut;
use Mensura\Exchange\FlightJson\Mission;
use Mensura\Fault\UnusableInput;
use Mensura\Flight\DensePoints;

/** Dense points of adjusted flights and groups of images, kept as LAS; and a cloud made of them, without what stands alone. */
final class DenseMaker implements Recompute
{
    public const PREFIX = 'dense:';

    /** Pixels between points. */
    private const PIXELS = 3.0;
    private const MOST = 1_000_000;
    private const LEAST_TIES = 20;

    public function __construct(
        private readonly FlightFiles $files, private readonly FileStore $store, private readonly Results $results,
        private readonly Ledger $ledger, private readonly CloudMaker $clouds, private readonly MadeClouds $made,
    ) {
    }

    public static function kind(): string
    {
        return 'dense';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = DenseSettings::fromArray($newest->settings);
        $this->make($context->project, $context->authorName, $newest->number(), $settings, $context->report(...), $context->jobId);
    }

    /**
     * The points, and for a new number the cloud of them.
     *
     * @param ?\Closure(string, float): void $progress
     *
     * @return int number of the cloud; 0 where the points were made anew, and their cloud waits to be
     *
     * @throws UnusableInput
     */
    public function make(
        Project $project, string $authorName, ?int $number, DenseSettings $settings, ?\Closure $progress = null, ?string $jobId = null,
    ): int {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        [$basis, $sources] = $this->results->reading(
            $project, [], $settings->slots(), fn (Project $project): array => $this->sources($project, $settings),
        );
        $folder = WorkFolder::make();
        try {
            $las = LasOut::coloured($folder->path.'/dense.las');
            $count = 0;
            $of = $parts = [];
            foreach ($sources as $k => [$mission, $paths, $flight]) {
                $part = static fn (string $stage, float $of) => $report(
                    \sprintf('%s of %s', $stage, $mission->name), 0.8 * ($k + $of) / \count($sources),
                );
                $dense = self::dense($mission, $paths, $this->store->getJson($flight->output), $flight, $settings, $part);
                $las->write($dense->points);
                $count += $dense->points->count();
                $of[] = (string) $flight->summary['name'];
                $parts[] = [
                    'name' => (string) $flight->summary['name'], 'points' => $dense->points->count(), 'spacing' => $dense->cell,
                    'completeness' => $dense->completeness,
                ];
            }
            if (0 === $count) {
                throw new UnusableInput('/flights', 'show nothing alike: no point is found');
            }
            $las->finish();
            $output = $this->store->take($folder->path.'/dense.las');
        } finally {
            $folder->clear();
        }
        $summary = ['name' => $settings->name, 'of' => implode(', ', $of), 'points' => $count, 'parts' => $parts];
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Dense points '.$settings->name, $basis, (array) $settings, $summary, $output,
        );
        $title = \sprintf('Dense points %s of %s: %d', $settings->name, $summary['of'], $count);
        $record = new RecordNumbered($this->results, $outcome, 'make-dense', $title, null, ['parts']);
        // The job is done with the cloud, or with these points where their cloud is there already.
        $this->ledger->carryOut($project, $authorName, $record, null === $number ? null : $jobId);
        if (null !== $number) {
            return 0;
        }

        $of = new CloudSettings($this->free($project, $settings->name), [], noise: true, dense: [$record->number]);

        return $this->clouds->make(
            $project, $authorName, null, $of,
            static fn (string $stage, float $of) => $report($stage, 0.8 + 0.2 * $of), $jobId,
        );
    }

    /** A name that no cloud has: "barn", or "barn 2". */
    private function free(Project $project, string $name): string
    {
        $taken = array_map(static fn (Result $r): string => (string) $r->summary['name'], $this->made->of($project));
        for ($k = 2, $free = $name; \in_array($free, $taken, true); ++$k) {
            $free = "$name $k";
        }

        return $free;
    }

    /**
     * @return list<array{Mission, list<?string>, Result}>
     *
     * @throws UnusableInput
     */
    private function sources(Project $project, DenseSettings $settings): array
    {
        $current = $this->results->current($project);
        $stale = $this->results->stale($project);
        $sources = [];
        foreach ($settings->flights as $i => $number) {
            $slot = FlightMaker::PREFIX.$number;
            $flight = $current[$slot] ?? throw new UnusableInput("/flights/$i", 'there is no such flight or group of images');
            if (isset($stale[$slot])) {
                throw new UnusableInput("/flights/$i", 'is stale; adjust it again first');
            }
            [$mission] = $this->files->mission($project, FlightSettings::fromArray($flight->settings)->mission);
            $sources[] = [$mission, $this->files->paths($project, $mission), $flight];
        }

        return $sources;
    }

    /**
     * @param list<?string>                  $paths
     * @param array<string, mixed>           $figures
     * @param \Closure(string, float): void  $report
     *
     * @throws UnusableInput
     */
    private static function dense(
        Mission $mission, array $paths, array $figures, Result $flight, DenseSettings $settings, \Closure $report,
    ): DensePoints {
        $images = OrthoMaker::oriented($mission, $figures);
        if (\count($figures['tiePoints']) < 3 * self::LEAST_TIES || \count($images->positions) < 2) {
            throw new UnusableInput('/flights', \sprintf('%s has too few tie points to say where to look', $flight->summary['name']));
        }
        $held = ImagesHeld::of($mission, $images, $paths, static fn (float $of) => $report('reading images', 0.2 * $of));
        $cell = $settings->spacing ?? self::PIXELS * $held->scale * (float) $flight->summary['pixel'];

        return DensePoints::of(
            $images, $held->grey, $figures['tiePoints'], $mission->isGroup, $cell, self::MOST, $held->open(...),
            static fn (float $of) => $report('matching', 0.2 + 0.8 * $of),
        );
    }
}
