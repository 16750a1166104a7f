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
use App\Survey\PointRepository;
use Mensura\Deviation\Along;
use Mensura\Deviation\DeviationStatistics;
use Mensura\Deviation\ElevationReference;
use Mensura\Deviation\FittedPlane;
use Mensura\Deviation\MeshReference;
use Mensura\Deviation\Reference;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Mesh;

/** Compares measured points with a reference and keeps every deviation. */
final class DeviationMaker implements Recompute
{
    public const PREFIX = 'deviation:';

    public function __construct(
        private readonly PointRepository $points,
        private readonly DesignFiles $designs,
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
        $contents = [$settings->measured()];
        if (DeviationSettings::PLANE === $settings->reference && [] !== $settings->planeCodes) {
            $contents[] = $settings->planePoints();
        }
        $slots = DeviationSettings::SURFACE === $settings->reference ? ['surface:'.$settings->surface] : [];
        $report('points', 0.05);
        [$basis, [$names, $x, $y, $z, $reference, $words]] = $this->results->reading(
            $project, $contents, $slots, function (Project $project) use ($settings): array {
                [$names, $x, $y, $z] = $this->chosen($project, $settings->codes, $settings->pattern);
                if ([] === $names) {
                    throw new UnusableInput('/codes', 'no point with a height is chosen; look at the codes and the pattern of names');
                }

                return [$names, $x, $y, $z, ...$this->reference($project, $settings, $x, $y, $z)];
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
     * @param list<float> $x of the measured points
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{Reference, string} and what it is, in words
     */
    private function reference(Project $project, DeviationSettings $settings, array $x, array $y, array $z): array
    {
        switch ($settings->reference) {
            case DeviationSettings::SURFACE:
                $slot = 'surface:'.$settings->surface;
                $surface = $this->results->current($project)[$slot]
                    ?? throw new UnusableInput('/surface', 'this surface is not computed; compute it in Terrain first');
                if (isset($this->results->stale($project)[$slot])) {
                    throw new UnusableInput('/surface', 'the surface is stale; recompute it first');
                }
                $tin = MeshCodec::decode($this->store->get($surface->output));

                return [new MeshReference(Mesh::of($tin->x, $tin->y, $tin->z, $tin->triangles)), $surface->inWords()];
            case DeviationSettings::DESIGN:
                $metre = DeviationSettings::METRES[$settings->unit];
                [$mesh, $faces] = $this->designs->mesh($project, $settings->design, $settings->layers, $metre);
                if ('' === $settings->unit) {
                    UnitDoubt::refuse($mesh, $x, $y);
                }
                $words = \sprintf('%d faces of %s', $faces, $this->designs->named($project, $settings->design));

                return [new MeshReference($mesh), $words.([] === $settings->layers ? '' : ', '.implode(', ', $settings->layers))];
            case DeviationSettings::PLANE:
                if ([] !== $settings->planeCodes) {
                    [, $x, $y, $z] = $this->chosen($project, $settings->planeCodes, '');
                }
                $words = \sprintf('the plane through %d points%s', \count($x), [] === $settings->planeCodes ? ' themselves' : '');

                return [FittedPlane::through($x, $y, $z), $words];
            default:
                return [new ElevationReference($settings->elevation), \sprintf('the elevation %.3f m', $settings->elevation)];
        }
    }

    /**
     * @param list<string> $codes
     *
     * @return array{list<string>, list<float>, list<float>, list<float>}
     */
    private function chosen(Project $project, array $codes, string $pattern): array
    {
        $names = $x = $y = $z = [];
        foreach ($this->points->onGrid($project) as $p) {
            if (DeviationSettings::takes($p, $codes, $pattern)) {
                $names[] = $p->name;
                $x[] = (float) $p->e;
                $y[] = (float) $p->n;
                $z[] = (float) $p->h;
            }
        }

        return [$names, $x, $y, $z];
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
