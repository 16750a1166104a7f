<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\RecordNumbered;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\FlightJson\Mission;
use Mensura\Fault\UnusableInput;
use Mensura\Flight\FlightAdjusted;
use Mensura\Flight\FlightBlock;
use Mensura\Flight\FlightImages;
use Mensura\Flight\OrientedImages;
use Mensura\Image\Block;
use Mensura\Image\Rotation;
use Mensura\Rays\ImageRays;

/** Adjusts a photo flight: tie points, first without control, then with it; check points never enter. */
final class FlightMaker implements Recompute
{
    public const PREFIX = 'flight:';
    private const LEAST = 3;
    /** Metres by which a mark is off before it is asked whether it is another point's. */
    private const FAR = 2.0;

    public function __construct(
        private readonly FlightFiles $files, private readonly FileStore $store, private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'flight';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = FlightSettings::fromArray($newest->settings);
        $this->make($context->project, $context->authorName, $newest->number(), $settings, $context->report(...), $context->jobId);
    }

    /**
     * @param ?int                           $number   of the flight that is made anew; null for a new one
     * @param ?\Closure(string, float): void $progress
     *
     * @return int number it is kept under
     *
     * @throws UnusableInput
     */
    public function make(
        Project $project, string $authorName, ?int $number, FlightSettings $settings, ?\Closure $progress = null, ?string $jobId = null,
    ): int {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $report('reading', 0.01);
        [$basis, [$mission, $positions, $rotations, $paths, $known]] = $this->results->reading(
            $project, $settings->contents(), [], function (Project $project) use ($settings): array {
                [$mission, $positions, $rotations] = $this->files->mission($project, $settings->mission);

                $known = $this->files->known($project, $mission, $settings->marks);

                return [$mission, $positions, $rotations, self::there($mission, $this->files->paths($project, $mission)), $known];
            },
        );
        $images = FlightImages::of(
            $paths, $mission->files, $mission->camera, $mission->width, $mission->height, $positions, $mission->above,
            static fn (string $stage, float $of) => $report($stage, 0.02 + ('features' === $stage ? 0.25 * $of : 0.25 + 0.5 * $of)),
        );
        $block = new FlightBlock(
            $mission->camera, $mission->solved, $mission->files, $positions, [$mission->sd[0], $mission->sd[0], $mission->sd[1]],
            $rotations, $images->tracks, $known, $mission->turnSd,
            $mission->isGroup ? FlightBlock::ENOUGH_OF_GROUP : FlightBlock::ENOUGH,
            $mission->isGroup ? FlightBlock::TIE_SD_OF_GROUP : FlightBlock::TIE_SD,
        );
        $adjusting = static fn (string $stage, float $of) => $report($stage, 0.78 + 0.18 * $of);
        $free = $block->adjust(false, null, $adjusting);
        $control = \count(array_filter($known, static fn (array $k): bool => Block::CONTROL === $k['role']));
        $held = $control >= self::LEAST ? $block->adjust(true, $free, $adjusting) : null;
        $report('keeping', 0.97);
        $output = $this->store->putJson(self::figures($mission, $images, $free, $held));
        $summary = self::summary($settings, $mission, $images, $free, $held, $control);
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Flight '.$settings->name, $basis, (array) $settings, $summary, $output,
        );
        $title = \sprintf(
            'Flight %s: %d images, %d tie points, %s', $settings->name, \count($mission->files), $summary['points'],
            null === $held ? 'without control' : $control.' control points',
        );
        $record = new RecordNumbered($this->results, $outcome, 'adjust-flight', $title, 'flight', ['swapped', 'alone']);
        $this->ledger->carryOut($project, $authorName, $record, $jobId);

        return $record->number;
    }

    /**
     * @param list<?string> $paths
     *
     * @return list<string>
     *
     * @throws UnusableInput naming images that are missing
     */
    private static function there(Mission $mission, array $paths): array
    {
        $missing = array_keys(array_filter($paths, static fn (?string $p): bool => null === $p));
        if ([] !== $missing) {
            $names = implode(', ', array_map(static fn (int $i): string => $mission->files[$i], \array_slice($missing, 0, 5)));
            $words = '%d of its images have not come in: %s%s. Bring them in as photos of these names';
            $more = \count($missing) > 5 ? ' and more' : '';
            throw new UnusableInput('/mission', \sprintf($words, \count($missing), $names, $more));
        }

        return array_values(array_filter($paths));
    }

    /** @return array<string, mixed> */
    private static function figures(Mission $mission, FlightImages $images, FlightAdjusted $free, ?FlightAdjusted $held): array
    {
        $best = $held ?? $free;
        $result = $best->result;
        $rays = $best->raysOf();
        $oriented = [];
        foreach ($mission->files as $i => $file) {
            $oriented[] = [
                'file' => $file, 'position' => $result->positions[$i] ?? null, 'rotation' => $result->rotations[$i] ?? null,
                'angles' => isset($result->rotations[$i]) ? Rotation::angles($result->rotations[$i]) : null, 'rays' => $rays[$i],
                'features' => $images->features[$i],
            ];
        }
        $places = $sds = [];
        foreach ($result->places as $p => $place) {
            if (Block::TIE === $best->block->roles[$p]) {
                array_push($places, ...array_map(static fn (float $v): float => round($v, 3), $place));
                array_push($sds, ...array_map(static fn (float $v): float => round($v, 4), $result->placeSds[$p]));
            }
        }
        $before = array_column($free->known(), 'off', 'id');
        $known = array_map(static fn (array $k): array => $k + ['before' => $before[$k['id']] ?? null], $best->known());

        return [
            'camera' => $result->cameras[0], 'cameraSd' => $result->cameraSds[0] ?? [], 'said' => $mission->camera,
            'width' => $mission->width, 'height' => $mission->height, 'images' => $oriented, 'tiePoints' => $places, 'tieSds' => $sds,
            'known' => $known,
        ];
    }

    /** @return array<string, mixed> */
    private static function summary(
        FlightSettings $settings, Mission $mission, FlightImages $images, FlightAdjusted $free, ?FlightAdjusted $held, int $control,
    ): array {
        $best = $held ?? $free;
        $isTie = static fn (int $p): bool => Block::TIE === $best->block->roles[$p];
        $tie = array_filter($best->used->points, $isTie, \ARRAY_FILTER_USE_KEY);
        $checks = array_filter($best->known(), static fn (array $k): bool => 'check' === $k['role'] && null !== $k['off']);
        $heights = array_column(array_intersect_key($best->result->places, $tie), 2);
        sort($heights);
        $ground = $heights[intdiv(\count($heights), 2)] ?? 0.0;
        $above = $mission->isGroup ? self::depths($best)
            : array_map(static fn (array $p): float => $p[2] - $ground, $best->result->positions);

        return [
            'name' => $settings->name, 'of' => $mission->name, 'images' => \count($mission->files), 'joined' => \count($best->used->images),
            'alone' => array_map(static fn (int $i): string => $mission->files[$i], $images->alone), 'points' => \count($tie),
            'rays' => \count($best->used->rays), 'left' => \count($best->left), 'sigma0' => $best->result->sigma0,
            'freeSigma0' => $free->result->sigma0, 'control' => $control, 'isHeld' => null !== $held, 'checks' => \count($checks),
            'rms' => [] === $checks ? null : self::rms(array_column($checks, 'off')), 'ground' => $ground,
            'pixel' => array_sum($above) / max(1, \count($above)) / $best->result->cameras[0][0],
            'swapped' => self::swapped($free), 'converged' => $best->result->converged,
        ];
    }

    /** @return list<float> how far tie points lie before the images that show them */
    private static function depths(FlightAdjusted $best): array
    {
        $r = $best->result;
        $rays = new ImageRays(new OrientedImages($r->cameras[0], $r->positions, $r->rotations, 0, 0));
        $depths = [];
        foreach ($best->used->rays as $ray) {
            $depths[] = $rays->depth($best->block->rayImage[$ray], $r->places[$best->block->rayPoint[$ray]]);
        }

        return $depths;
    }

    /**
     * @param list<array{float, float, float}> $off
     *
     * @return array{float, float} in plan and in height
     */
    private static function rms(array $off): array
    {
        $plan = array_sum(array_map(static fn (array $o): float => $o[0] ** 2 + $o[1] ** 2, $off));
        $up = array_sum(array_map(static fn (array $o): float => $o[2] ** 2, $off));

        return [sqrt($plan / \count($off)), sqrt($up / \count($off))];
    }

    /**
     * Pairs of points whose marks are each other's, as it shows without control: where the rays of one meet lies the other.
     *
     * @return list<array{string, string}>
     */
    private static function swapped(FlightAdjusted $free): array
    {
        $places = [];
        foreach ($free->known() as $k) {
            $place = $free->block->places[(int) array_search($k['id'], $free->block->pointIds, true)];
            if (null !== $k['off'] && null !== $place) {
                $places[] = [$k['id'], $place, [$place[0] + $k['off'][0], $place[1] + $k['off'][1], $place[2] + $k['off'][2]]];
            }
        }
        $apart = static fn (array $a, array $b): float => hypot(hypot($a[0] - $b[0], $a[1] - $b[1]), $a[2] - $b[2]);
        $pairs = [];
        foreach ($places as $i => [$one, $is, $seen]) {
            foreach (\array_slice($places, $i + 1) as [$two, $other, $otherSeen]) {
                $own = min($apart($seen, $is), $apart($otherSeen, $other));
                $crossed = max($apart($seen, $other), $apart($otherSeen, $is));
                if ($own > self::FAR && $crossed < 0.25 * $own) {
                    $pairs[] = [$one, $two];
                }
            }
        }

        return $pairs;
    }
}
