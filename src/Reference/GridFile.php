<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Store\Journaled;
use Doctrine\ORM\Mapping as ORM;

/** A geoid or a grid of shifts that the project brought or made; its bytes are in the file store. */
#[ORM\Entity(repositoryClass: GridFileRepository::class)]
#[ORM\Table(name: 'grid_file')]
#[ORM\UniqueConstraint(name: 'grid_file_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'grid_file_project', columns: ['project_id'])]
class GridFile implements Journaled, Kept
{
    public const GEOID = 'geoid';
    public const SHIFT = 'shift';
    public const IMPORTED = 'imported';
    public const EXTRACT = 'extract';

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /** @var array{bounds?: list<float>, step?: float, ellipsoid?: string, notes?: list<string>} degrees */
    #[ORM\Column(type: 'json')]
    public array $info;

    /** @param array{bounds?: list<float>, step?: float, ellipsoid?: string, notes?: list<string>} $info */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 200)]
        public readonly string $name,
        #[ORM\Column(length: 20)]
        public readonly string $kind,
        #[ORM\Column(length: 20)]
        public readonly string $origin,
        #[ORM\Column(length: 64)]
        public readonly string $sha256,
        #[ORM\Column]
        public readonly int $size,
        array $info,
        #[ORM\Column]
        public \DateTimeImmutable $createdAt,
    ) {
        $this->info = $info;
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    public function isGeoid(): bool
    {
        return self::GEOID === $this->kind;
    }

    /** The ellipsoid its heights are above. */
    public function ellipsoid(): string
    {
        return $this->info['ellipsoid'] ?? '';
    }
}
