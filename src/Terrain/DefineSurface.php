<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;

/** Makes a surface's definition, or changes it. */
final class DefineSurface implements Operation
{
    public int $id = 0;

    public function __construct(private readonly Connection $connection, private readonly string $surface, private readonly SurfaceDefinition $definition, private readonly ?int $existing = null)
    {
    }

    public function name(): string
    {
        return 'define-surface';
    }

    public function title(): string
    {
        return (null === $this->existing ? 'Defined surface ' : 'Changed surface ').$this->surface;
    }

    public function detail(): array
    {
        return (array) $this->definition;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $same = $this->connection->fetchOne('SELECT id FROM surface WHERE project_id = ? AND name = ?', [$project->id(), $this->surface]);
        if (false !== $same && (int) $same !== $this->existing) {
            throw new UnusableInput('/name', \sprintf('there is a surface "%s" already', $this->surface));
        }
        $row = ['name' => $this->surface, 'definition' => $this->definition->toJson()];
        if (null === $this->existing) {
            $this->id = $journal->insert('surface', ['project_id' => $project->id()] + $row);
        } else {
            $journal->update('surface', $this->existing, $row);
            $this->id = $this->existing;
        }
    }
}
