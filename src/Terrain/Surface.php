<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Project\Project;
use App\Store\Versioned;
use Doctrine\ORM\Mapping as ORM;

/** A surface as it is defined; what is computed of it are results. */
#[ORM\Entity(repositoryClass: SurfaceRepository::class)]
#[ORM\Table(name: 'surface')]
#[ORM\UniqueConstraint(name: 'surface_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'surface_project', columns: ['project_id'])]
class Surface implements Versioned
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /** @var array<string, mixed> {@see SurfaceDefinition::toArray()} */
    #[ORM\Column(type: 'json')]
    private array $definition;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 120)]
        private string $name,
        SurfaceDefinition $definition,
    ) {
        $this->definition = $definition->toArray();
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function definition(): SurfaceDefinition
    {
        return SurfaceDefinition::fromArray($this->definition);
    }

    public function define(string $name, SurfaceDefinition $definition): void
    {
        $this->name = $name;
        $this->definition = $definition->toArray();
    }

    public function slot(): string
    {
        return 'surface:'.$this->id();
    }

    public function version(): int
    {
        return $this->version;
    }

    public function changedBy(int $seq): void
    {
        $this->version = $seq;
    }
}
