<?php

declare(strict_types=1);

namespace App\Checks\CheckPoint;

use App\Checks\ComputedSurfaces;
use App\Design\CloudFiles;
use App\Design\PointProducts;
use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\RecordNumbered;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use Mensura\Deviation\CheckAccuracy;
use Mensura\Deviation\CloudReference;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Locator;

/** Compares what is known of check points with what was computed there, and keeps every difference: computed minus known. */
final class CheckPointMaker implements Recompute
{
    public const PREFIX = 'check:';

    public function __construct(
        private readonly PointRepository $points,
        private readonly CloudFiles $clouds,
        private readonly ComputedSurfaces $surfaces,
        private readonly PointProducts $made,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'check';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = CheckPointSettings::fromArray($newest->settings);
        $this->make($context->project, $context->authorName, $newest->number(), $settings, $context->report(...));
    }

    /**
     * @param ?int                           $number   of the check that is made anew; null for a new one
     * @param ?\Closure(string, float): void $progress
     *
     * @return int number it is kept under
     *
     * @throws UnusableInput
     */
    public function make(
        Project $project, string $authorName, ?int $number, CheckPointSettings $settings, ?\Closure $progress = null, ?string $jobId = null,
    ): int {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $report('check points', 0.05);
        [$contents, $slots] = $settings->restsOn();
        [$basis, [$checks, $at, $words]] = $this->results->reading(
            $project, $contents, $slots, fn (Project $project): array => [
                $this->checks($project, $settings), ...$this->computed($project, $settings),
            ],
        );
        $report('differences', 0.5);
        $rows = [];
        foreach ($checks as $p) {
            $rows[] = self::row($p, $at($p));
        }
        $a = new CheckAccuracy(
            self::there(array_column($rows, 'de')), self::there(array_column($rows, 'dn')), self::there(array_column($rows, 'dh')),
        );
        $used = \count(array_filter($rows, static fn (array $r): bool => null !== $r['dh'] || null !== $r['de']));
        $summary = [
            'name' => $settings->name, 'against' => $words, 'count' => \count($rows), 'used' => $used, 'axes' => $a->axes,
            'radial' => $a->radial, 'horizontal' => $a->horizontal, 'vertical' => $a->vertical,
        ];
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Check points '.$settings->name, $basis, (array) $settings, $summary,
            $this->store->putJson(['points' => $rows]),
        );
        $title = \sprintf('Checked %s at %d of %d check points against %s', $settings->name, $used, \count($rows), $words);
        $record = new RecordNumbered($this->results, $outcome, 'check', $title, 'check', ['axes']);
        $this->ledger->carryOut($project, $authorName, $record, $jobId);

        return $record->number;
    }

    /**
     * @param list<?float> $differences
     *
     * @return list<float>
     */
    private static function there(array $differences): array
    {
        return array_values(array_filter($differences, static fn (?float $d): bool => null !== $d));
    }

    /** @return non-empty-list<PointRow> */
    private function checks(Project $project, CheckPointSettings $settings): array
    {
        $checks = [];
        foreach ($this->points->ofRole($project, Point::CHECK) as $p) {
            // In a projected system a point known only locally has no place there.
            if (CheckPointSettings::takes($p, $settings->pattern) && ($project->isPlane() || Point::GLOBALLY === $p->known)) {
                $checks[] = $p;
            }
        }

        return [] !== $checks ? $checks : throw new UnusableInput('/pattern', 'there is no such check point; bring a list of marks in as '
            .'check points in Intake, or make points check points under Network, Control');
    }

    /**
     * What was computed at a check point: of what, easting, northing, height; and what it is compared with, in words.
     *
     * @return array{\Closure(PointRow): ?array{string, ?float, ?float, ?float}, string}
     */
    private function computed(Project $project, CheckPointSettings $settings): array
    {
        switch ($settings->against) {
            case CheckPointSettings::SURFACE:
                [$tin, $words] = $this->surfaces->tin($project, $settings->surface, '/surface');
                $locator = new Locator($tin);

                return [static fn (PointRow $p): array => [
                    '', null, null, null === $p->givenE || null === $p->givenN ? null : $locator->height($p->givenE, $p->givenN),
                ], $words];
            case CheckPointSettings::CLOUD:
            case CheckPointSettings::MADE:
                [$x, $y, $z, $name] = CheckPointSettings::MADE === $settings->against
                    ? $this->made->points($project, $settings->made, '/made')
                    : $this->clouds->points($project, $settings->cloud, '/cloud');
                $cloud = new CloudReference($x, $y, $z, $settings->radius);

                return [static function (PointRow $p) use ($cloud): array {
                    $h = null === $p->givenE || null === $p->givenN ? \NAN : $cloud->plane($p->givenE, $p->givenN)[0];

                    return ['', null, null, is_nan($h) ? null : $h];
                }, \sprintf('%d points of %s, planes within %.3f m', \count($x), $name, $cloud->radius)];
            default:
                $measured = new MeasuredOfCheck($this->points, $project, $settings->within);

                return [$measured->of(...), 'what was measured of them'];
        }
    }

    /**
     * @param ?array{string, ?float, ?float, ?float} $at
     *
     * @return array{name: string, e: ?float, n: ?float, h: ?float, by: string, de: ?float, dn: ?float, dh: ?float}
     */
    private static function row(PointRow $p, ?array $at): array
    {
        $less = static fn (?float $a, ?float $b): ?float => null === $a || null === $b ? null : round($a - $b, 6);

        return [
            'name' => $p->name, 'e' => $p->givenE, 'n' => $p->givenN, 'h' => $p->givenH, 'by' => $at[0] ?? '',
            'de' => $less($at[1] ?? null, $p->givenE), 'dn' => $less($at[2] ?? null, $p->givenN), 'dh' => $less($at[3] ?? null, $p->givenH),
        ];
    }
}
