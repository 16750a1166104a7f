<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\Project\Project;
use App\Store\Versioned;
use Doctrine\ORM\Mapping as ORM;

/** A package as it is defined; what is written of it are results. */
#[ORM\Entity(repositoryClass: PackageRepository::class)]
#[ORM\Table(name: 'package')]
#[ORM\UniqueConstraint(name: 'package_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'package_project', columns: ['project_id'])]
class KeptPackage implements Versioned
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /** @var array<string, mixed> {@see PackageDefinition::toArray()} */
    #[ORM\Column(type: 'json')]
    private array $definition;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 80)]
        private string $name,
        PackageDefinition $definition,
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

    public function definition(): PackageDefinition
    {
        return PackageDefinition::fromArray($this->definition);
    }

    public function define(string $name, PackageDefinition $definition): void
    {
        $this->name = $name;
        $this->definition = $definition->toArray();
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
