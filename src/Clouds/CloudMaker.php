<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Clouds\Group\MadeDense;
use App\Clouds\Pass\PassScans;
use App\Design\CloudFiles;
use App\Design\FilePlacement;
use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\RecordNumbered;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Cloud\CloudFigures;
use Mensura\Cloud\CloudSteps;
use Mensura\Cloud\Crop;
use Mensura\Cloud\PointBlock;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Exchange\Cloud\LasOut;
use Mensura\Exchange\Cloud\Tiles;
use Mensura\Fault\UnusableInput;

/** Makes a cloud of received ones, or of ones made before, and keeps it twice: as LAS, and as tiles that are looked at. */
final class CloudMaker implements Recompute
{
    public const PREFIX = 'cloud:';

    public function __construct(
        private readonly CloudFiles $files, private readonly MadeClouds $made, private readonly PassScans $scans,
        private readonly MadeDense $dense, private readonly KnownPoints $known,
        private readonly MadePoints $points, private readonly FileStore $store, private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'cloud';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = CloudSettings::fromArray($newest->settings);
        $this->make($context->project, $context->authorName, $newest->number(), $settings, $context->report(...), $context->jobId);
    }

    /**
     * @param ?int                           $number   of the cloud that is made anew; null for a new one
     * @param ?\Closure(string, float): void $progress
     *
     * @return int number it is kept under
     *
     * @throws UnusableInput
     */
    public function make(
        Project $project, string $authorName, ?int $number, CloudSettings $settings, ?\Closure $progress = null, ?string $jobId = null,
    ): int {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $report('reading', 0.02);
        [$basis, [$sources, $names, $onto, $targets, $reference]] = $this->results->reading(
            $project, $settings->contents(), $settings->slots(), fn (Project $project): array => $this->sources($project, $settings),
        );
        $folder = WorkFolder::make();
        try {
            $fit = null === $onto ? $targets : CloudFit::of($onto, $sources, $settings->within, $report);
            $paint = match ($settings->paint) {
                CloudPaint::TIME => CloudPaint::byTime($sources),
                CloudPaint::DEVIATION => CloudPaint::byDeviation($reference, $settings->range),
                default => null,
            };
            [$figures, $looks] = self::work($settings, $sources, $fit, $paint, $folder->path, $report);
            $report('keeping', 0.95);
            $of = implode(', ', $names);
            $summary = [
                'name' => $settings->name, 'of' => $of, 'steps' => $settings->words(), 'points' => $figures->count,
                'classes' => $figures->classes(), 'extent' => $figures->extent(), 'density' => $figures->density(),
                'spacing' => $figures->spacing(), ...$looks, 'fit' => $fit instanceof CloudFit ? $fit->summary() : null,
                'targets' => $targets?->summary(), 'paint' => $paint?->summary(),
                'bytes' => (int) filesize($folder->path.'/cloud.las'),
                'las' => $this->store->take($folder->path.'/cloud.las'),
            ];
            $output = $this->store->take(TileArchive::pack($folder->path.'/tiles', $folder->path.'/tiles.zip'));
        } finally {
            $folder->clear();
        }
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Cloud '.$settings->name, $basis, (array) $settings, $summary, $output,
        );
        $title = \sprintf('Cloud %s of %s: %d points', $settings->name, $of, $figures->count);
        $record = new RecordNumbered($this->results, $outcome, 'make-cloud', $title, 'cloud');
        $this->ledger->carryOut($project, $authorName, $record, $jobId);

        return $record->number;
    }

    /**
     * @return array{
     *     non-empty-list<array{CloudReader, ?\Closure(PointBlock): PointBlock}>, list<string>, ?CloudReader, ?CloudTargets,
     *     array{list<float>, list<float>, list<float>, string},
     * } what it is made of, their names, what it is laid onto, how targets move it, and what it deviates from
     *
     * @throws UnusableInput
     */
    private function sources(Project $project, CloudSettings $settings): array
    {
        $sources = $names = [];
        foreach ($settings->files as $i => $file) {
            [$reader, $way] = $this->files->opened($project, $file, "/files/$i");
            $sources[] = [$reader, null === $way ? null : static fn (PointBlock $b): PointBlock => self::moved($b, $way)];
            $names[] = $reader->name;
        }
        foreach ($settings->passes as $i => $number) {
            $sources[] = $this->scans->opened($project, $number, "/passes/$i");
            $names[] = $this->scans->name($project, $number);
        }
        foreach ($settings->dense as $i => $number) {
            $sources[] = [$this->dense->opened($project, $number, "/dense/$i"), null];
            $names[] = $this->dense->name($project, $number);
        }
        foreach ($settings->clouds as $i => $cloud) {
            $result = $this->made->fresh($project, $cloud, "/clouds/$i");
            $sources[] = [$this->made->opened($result), null];
            $names[] = (string) $result->summary['name'];
        }
        if ([] === $sources) {
            throw new UnusableInput('/files', 'are none; choose the clouds it is made of');
        }

        $onto = 0 === $settings->onto ? null : $this->made->opened($this->made->fresh($project, $settings->onto, '/onto'));

        $targets = [] === $settings->targets ? null : CloudTargets::of($project, $this->known, $settings->targets);

        $reference = CloudPaint::DEVIATION === $settings->paint ? $this->points->points($project, $settings->against, '/against')
            : [[], [], [], ''];

        return [$sources, $names, $onto, $targets, $reference];
    }

    /**
     * @param non-empty-list<array{CloudReader, ?\Closure(PointBlock): PointBlock}> $sources
     * @param \Closure(string, float): void                                                                   $report
     *
     * @return array{CloudFigures, array<string, bool>} and what is known of how its points look
     */
    private static function work(
        CloudSettings $settings, array $sources, CloudFit|CloudTargets|null $fit, ?CloudPaint $paint, string $folder, \Closure $report,
    ): array {
        $readers = array_map(static fn (array $s): CloudReader => $s[0], $sources);
        $isMoved = null !== $fit || [] !== array_filter($sources, static fn (array $s): bool => null !== $s[1]);
        $hasColours = null !== $paint || [] !== array_filter($readers, static fn (CloudReader $r): bool => $r->hasColours());
        $hasIntensities = [] !== array_filter($readers, static fn (CloudReader $r): bool => null !== $r->las);
        $crop = [] === $settings->crop ? null : Crop::areas([[$settings->crop]]);
        $figures = new CloudFigures(1.0);
        $las = null === $paint ? LasOut::of($folder.'/cloud.las', $readers, $isMoved, '') : LasOut::coloured($folder.'/cloud.las');
        $tiles = new Tiles($folder.'/tiles', hasColours: $hasColours);
        $classes = [] === $settings->classes ? null : array_fill_keys($settings->classes, true);
        $give = static function (PointBlock $points) use ($figures, $las, $tiles): void {
            $figures->take($points);
            $las->write($points);
            $tiles->write($points);
        };
        $steps = new CloudSteps($settings->thin, $settings->noise, $settings->ground, $classes, 1.0, $give);
        $all = max(1, array_sum(array_map(static fn (CloudReader $r): int => $r->count(), $readers)));
        $read = 0;
        foreach ($sources as [$reader, $way]) {
            foreach ($reader->blocks(true) as $block) {
                $read += $block->count();
                $report('reading', 0.02 + 0.4 * min(1.0, $read / $all));
                $block = null === $way ? $block : $way($block);
                $block = null === $fit ? $block : $fit->apply($block);
                $block = null === $crop ? $block : $crop->of($block, $settings->outside);
                $steps->take(null === $paint ? $block : $paint->of($block, $reader));
            }
        }
        $steps->finish(static fn (string $stage, float $part) => $report($stage, 0.42 + 0.3 * $part));
        if (0 === $figures->count) {
            throw new UnusableInput('/crop', 'no point is left: look at the corners and the classes that are kept');
        }
        $las->finish();
        $report('tiles', 0.75);
        $tiles->finish();

        return [$figures, ['hasColours' => $hasColours, 'hasIntensities' => $hasIntensities]];
    }

    /** @param \Closure(float, float, float): array{float, float, float} $way */
    private static function moved(PointBlock $points, \Closure $way): PointBlock
    {
        [$x, $y, $z] = FilePlacement::along($way, $points->x, $points->y, $points->z);

        return new PointBlock($x, $y, $z, $points->classes, $points->records, $points->looks);
    }
}
