<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Project\Project;
use App\Store\Versioned;
use Doctrine\ORM\Mapping as ORM;
use Mensura\Earthworks\Material;

/** The materials a project's earthworks reckon with, and what a lorry takes. */
#[ORM\Entity(repositoryClass: MaterialListRepository::class)]
#[ORM\Table(name: 'material_list')]
#[ORM\UniqueConstraint(name: 'material_list_project', columns: ['project_id'])]
class MaterialList implements Versioned
{
    /** An invented sample to begin with: name, native, swell, shrink, density in tonnes a cubic metre, lorry in cubic metres loose. */
    private const SAMPLE = [
        ['topsoil', true, 1.20, 0.85, 1.5], ['sandy clay', true, 1.25, 0.90, 1.8], ['soft rock', true, 1.50, 1.25, 2.3],
        ['gravel, brought in', false, 1.12, 0.93, 1.9],
    ];
    public const CAPACITY = 12.0;

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /** @var list<array{string, bool, float, float, float}> */
    #[ORM\Column(type: 'json')]
    private array $materials = self::SAMPLE;

    /** Of a lorry, cubic metres loose. */
    #[ORM\Column(options: ['default' => 12])]
    private float $capacity = self::CAPACITY;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    public function capacity(): float
    {
        return $this->capacity;
    }

    /** @return list<Material> */
    public function materials(): array
    {
        return array_values(array_map(
            static fn (array $m): Material => new Material($m[0], $m[1], (float) $m[2], (float) $m[3], (float) $m[4]), $this->materials,
        ));
    }

    /** @param list<Material> $materials */
    public function keep(array $materials, float $capacity): void
    {
        $this->materials = array_values(array_map(
            static fn (Material $m): array => [$m->name, $m->isNative, $m->swell, $m->shrink, $m->density], $materials,
        ));
        $this->capacity = $capacity;
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
