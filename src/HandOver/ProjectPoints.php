<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Project\Project;
use App\Reference\ProjectReference;
use Doctrine\DBAL\Connection;

/** The points a hand-over holds: those with a plan position. */
final class ProjectPoints
{
    public function __construct(private readonly Connection $connection)
    {
    }

    /** @return list<array{name: string, e: float, n: float, h: ?float, code: string, role: string, source: string}> */
    public function of(Project $project): array
    {
        return array_map(static fn (array $p): array => [
            'name' => (string) $p['name'], 'e' => (float) $p['e'], 'n' => (float) $p['n'], 'h' => null === $p['h'] ? null : (float) $p['h'],
            'code' => $p['code'], 'role' => $p['role'], 'source' => $p['source'],
        ], $this->connection->fetchAllAssociative('SELECT name, e, n, h, code, role, source FROM point WHERE project_id = ? AND e IS NOT NULL AND n IS NOT NULL AND '.ProjectReference::ON_GRID.' ORDER BY id', [$project->id()]));
    }

    /** @return list<string> */
    public function leftOut(Project $project): array
    {
        $count = (int) $this->connection->fetchOne('SELECT COUNT(*) FROM point WHERE project_id = ? AND (e IS NULL OR n IS NULL)', [$project->id()]);
        $flat = (int) $this->connection->fetchOne('SELECT COUNT(*) FROM point WHERE project_id = ? AND e IS NOT NULL AND h IS NULL AND '.ProjectReference::ON_GRID, [$project->id()]);
        $local = (int) $this->connection->fetchOne('SELECT COUNT(*) FROM point WHERE project_id = ? AND e IS NOT NULL AND NOT '.ProjectReference::ON_GRID, [$project->id()]);

        return array_values(array_filter([
            0 === $count ? '' : \sprintf('%d points without a plan position', $count),
            0 === $local ? '' : \sprintf('%d points known only locally', $local),
            0 === $flat ? '' : \sprintf('heights of %d points that have none', $flat),
        ]));
    }

    public static function fileName(Project $project, string $what, string $extension): string
    {
        $name = strtolower(trim(preg_replace('/[^A-Za-z0-9]+/', '-', $project->name()) ?? '', '-'));

        return \sprintf('%s-%s.%s', '' === $name ? 'project' : $name, $what, $extension);
    }
}
