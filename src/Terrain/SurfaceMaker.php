<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Ledger\Recompute;
use App\Ledger\Results;
use App\Project\Project;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Contours;

/** Computes a surface from its definition and keeps its mesh and contours. */
final class SurfaceMaker implements Recompute
{
    public function __construct(
        private readonly Connection $connection,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'surface';
    }

    public function again(JobContext $context, array $row): void
    {
        $this->make($context->project, $context->authorName, (int) substr($row['slot'], 8), $context->report(...));
    }

    /** @param ?\Closure(string, float): void $progress */
    public function make(Project $project, string $authorName, int $surface, ?\Closure $progress = null, ?string $jobId = null): void
    {
        $row = $this->connection->fetchAssociative('SELECT name, definition FROM surface WHERE id = ? AND project_id = ?', [$surface, $project->id()]);
        if (false === $row) {
            throw new UnusableInput('', 'there is no such surface');
        }
        $definition = SurfaceDefinition::fromJson($row['definition']);
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $report('triangulation', 0.1);
        $builder = $definition->builder($this->connection, $project->id());
        $tin = $builder->build($definition->maxEdge);
        $report('contours', 0.6);
        $levels = Contours::of($tin, $definition->interval);
        $report('keeping', 0.9);
        $summary = $tin->statistics() + [
            'interval' => $definition->interval, 'contourCount' => array_sum(array_map(static fn (array $l): int => \count($l['lines']), $levels)),
            'contours' => $this->store->putJson($levels), 'warnings' => [...$builder->warnings, ...$builder->lineWarnings],
        ];
        $this->ledger->carryOut($project, $authorName, new RecordSurface($this->results, $surface, $row['name'], $summary, $this->store->put(MeshCodec::encode($tin))), $jobId);
    }
}
