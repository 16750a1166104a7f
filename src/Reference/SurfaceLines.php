<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Journal;
use App\Project\Project;
use Doctrine\DBAL\Connection;

/** The vertices of surfaces drawn on the sketch are in project coordinates, so they follow where the points go. */
final class SurfaceLines
{
    /** @param \Closure(string, float, float): array{float, float} $place surface, easting, northing in metres; gives the new easting and northing */
    public static function move(Connection $connection, Journal $journal, Project $project, \Closure $place): void
    {
        foreach ($connection->fetchAllAssociative('SELECT id, name, definition FROM surface WHERE project_id = ?', [$project->id()]) as $row) {
            $definition = json_decode((string) $row['definition'], true, 16, \JSON_THROW_ON_ERROR);
            foreach ($definition['lines'] ?? [] as $i => $line) {
                foreach ($line['vertices'] ?? [] as $k => $vertex) {
                    $definition['lines'][$i]['vertices'][$k] = $place((string) $row['name'], (float) $vertex[0], (float) $vertex[1]);
                }
            }
            $journal->update('surface', (int) $row['id'], ['definition' => json_encode($definition, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)]);
        }
    }
}
