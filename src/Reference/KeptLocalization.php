<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Store\Journaled;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** A localization as its open file. */
#[ORM\Entity(repositoryClass: LocalizationRepository::class)]
#[ORM\Table(name: 'localization')]
#[ORM\UniqueConstraint(name: 'localization_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'localization_project', columns: ['project_id'])]
class KeptLocalization implements Journaled, Kept
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 160)]
        public readonly string $name,
        #[ORM\Column(type: Types::TEXT)]
        public readonly string $file,
        #[ORM\Column]
        public \DateTimeImmutable $createdAt,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }
}
