<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Store\Journaled;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** A coordinate system of the project's own, as WKT2. */
#[ORM\Entity(repositoryClass: CustomSystemRepository::class)]
#[ORM\Table(name: 'custom_system')]
#[ORM\UniqueConstraint(name: 'custom_system_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'custom_system_project', columns: ['project_id'])]
class CustomSystem implements Journaled, Kept
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 160)]
        public readonly string $name,
        #[ORM\Column(type: Types::TEXT)]
        public readonly string $definition,
        #[ORM\Column]
        public \DateTimeImmutable $createdAt,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    /** As the project names it. */
    public function reference(): string
    {
        return 'custom:'.$this->id();
    }
}
