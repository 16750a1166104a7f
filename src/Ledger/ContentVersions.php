<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Project\Project;
use Doctrine\DBAL\Connection;

/**
 * Hashes of what results rest on. Equal contents have equal versions, so undoing a change makes results fresh again.
 */
final class ContentVersions
{
    public function __construct(private readonly Connection $connection)
    {
    }

    /**
     * Known: "reference", "network-settings", "observations", "control", "points:ROLE,ROLE", "surface:ID".
     */
    public function of(Project $project, string $what): string
    {
        [$kind, $which] = explode(':', $what, 2) + [1 => ''];
        $id = $project->id();

        return match ($kind) {
            'reference' => $this->hash('SELECT reference, heights, geoid FROM project WHERE id = ?', [$id]),
            'network-settings' => $this->hash('SELECT network_settings FROM project WHERE id = ?', [$id]),
            'observations' => $this->hash('SELECT kind, set_name, from_name, to_name, v1, v2, v3, sd, hi, ht, covariance, used FROM observation WHERE project_id = ? ORDER BY id', [$id]),
            'control' => $this->hash("SELECT name, given_e, given_n, given_h, held, sd_e, sd_n, sd_h FROM point WHERE project_id = ? AND role = 'control' ORDER BY name", [$id]),
            'points' => $this->hash('SELECT name, code, role, e, n, h, known FROM point WHERE project_id = ? ORDER BY id', [$id]),
            'surface' => $this->hash('SELECT definition FROM surface WHERE project_id = ? AND id = ?', [$id, (int) $which]),
            default => throw new \LogicException("No content is called $what."),
        };
    }

    /** @param list<mixed> $parameters */
    private function hash(string $sql, array $parameters): string
    {
        $context = hash_init('sha256');
        foreach ($this->connection->iterateNumeric($sql, $parameters) as $row) {
            hash_update($context, json_encode($row, \JSON_THROW_ON_ERROR)."\n");
        }

        return substr(hash_final($context), 0, 32);
    }
}
