<?php

declare(strict_types=1);

namespace App\Intake\Memory;

use App\Account\User;
use App\Project\Project;
use Doctrine\ORM\Mapping as ORM;

/** How somebody had a file read, kept for the next one whose headings are the same. */
#[ORM\Entity(repositoryClass: RememberedMappingRepository::class)]
#[ORM\Table(name: 'remembered_mapping')]
#[ORM\UniqueConstraint(name: 'remembered_mapping_shape', columns: ['project_id', 'shape'])]
#[ORM\Index(name: 'remembered_mapping_author', columns: ['author_id'])]
class RememberedMapping
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
        public User $author,
        /** Hash of the headings' meanings. */
        #[ORM\Column(length: 64)]
        public readonly string $shape,
        #[ORM\Column(length: 80)]
        public string $label,
        #[ORM\Column(length: 30)]
        public string $kind,
        /** @var array<string, mixed> as the format keeps it */
        #[ORM\Column(type: 'json')]
        public array $mapping,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }
}
