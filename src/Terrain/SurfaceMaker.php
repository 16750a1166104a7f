<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Reference\ReferenceContent;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\AcceptedCoordinates;
use App\Survey\PointRepository;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Contours;
use Mensura\Surface\SmoothedSurface;
use Mensura\Surface\Tin;

/** Computes a surface from its definition and keeps its mesh and contours. */
final class SurfaceMaker implements Recompute
{
    /** Levels beyond this take more memory than a worker has, and no one reads them. */
    private const MOST_LEVELS = 20000;

    /** Triangles that are divided finely to be bent, and those beyond which contours stay as the triangles make them. */
    private const FEW = 20_000;
    private const MOST_BENT = 150_000;

    public function __construct(
        private readonly SurfaceRepository $surfaces,
        private readonly SurfaceShape $shape,
        private readonly PointRepository $points,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'surface';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $this->make($context->project, $context->authorName, $newest->number(), $context->report(...));
    }

    /** @param ?\Closure(string, float): void $progress */
    public function make(Project $project, string $authorName, int $surface, ?\Closure $progress = null, ?string $jobId = null): void
    {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $defined = $this->surfaces->in($project, $surface)?->definition();
        // Faces of a drawing are a surface whatever the points do.
        $isDrawn = null !== $defined?->design;
        $contents = $isDrawn ? ['surface:'.$surface, ReferenceContent::kind()] : ['points', 'surface:'.$surface];
        $slots = $isDrawn ? [] : [AcceptedCoordinates::SLOT];
        [
            $basis, [$name, $definition, $triangles],
        ] = $this->results->reading($project, $contents, $slots, function (Project $project) use ($surface): array {
            $s = $this->surfaces->in($project, $surface) ?? throw new UnusableInput('', 'there is no such surface');
            $definition = $s->definition();

            return [$s->name(), $definition, $this->shape->read($project, $definition, $this->points->onGrid($project))];
        });
        $report('triangulation', 0.1);
        [$tin, $words] = $triangles();
        $report('contours', 0.6);
        self::limit($tin, $definition->interval);
        $levels = Contours::of(self::contoured($tin, $definition), $definition->interval);
        $report('keeping', 0.9);
        $s = $tin->statistics();
        $count = array_sum(array_map(static fn (array $l): int => \count($l['lines']), $levels));
        $summary = new SurfaceSummary(
            $s['points'], $s['triangles'], $s['planArea'], $s['surfaceArea'], $s['hMin'], $s['hMax'], $definition->interval, $count,
            $this->store->putJson($levels), [...$words, ...self::unbent($tin, $definition)],
        );
        $outcome = new Outcome(
            'surface:'.$surface, self::kind(), 'Surface '.$name, $basis, [], (array) $summary, $this->store->put(MeshCodec::encode($tin)),
        );
        $this->ledger->carryOut($project, $authorName, new RecordSurface($this->results, $name, $summary, $outcome), $jobId);
    }

    /** The surface contours are drawn on: bent smoothly where that is wanted, the finer the fewer its triangles are. */
    public static function contoured(Tin $tin, SurfaceDefinition $definition): Tin
    {
        $triangles = $tin->triangleCount();

        return !$definition->smooth || $triangles > self::MOST_BENT ? $tin : SmoothedSurface::of($tin, $triangles > self::FEW ? 2 : 4);
    }

    /** @return list<string> */
    private static function unbent(Tin $tin, SurfaceDefinition $definition): array
    {
        return $definition->smooth && $tin->triangleCount() > self::MOST_BENT
            ? [\sprintf('contours are not smoothed: that is done up to %d triangles', self::MOST_BENT)] : [];
    }

    /** @throws UnusableInput before anything is computed that could not be kept */
    private static function limit(Tin $tin, float $interval): void
    {
        ['hMin' => $least, 'hMax' => $greatest] = $tin->statistics();
        $levels = ($greatest - $least) / $interval;
        if ($levels > self::MOST_LEVELS) {
            $words = 'contours every %.3f m over %.1f m of relief are %.0f levels; at most %d are drawn, so choose %.3f m or more';
            $enough = ceil(1000.0 * ($greatest - $least) / self::MOST_LEVELS) / 1000.0;
            throw new UnusableInput('/interval', \sprintf($words, $interval, $greatest - $least, $levels, self::MOST_LEVELS, $enough));
        }
    }
}
