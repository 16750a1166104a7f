<?php

declare(strict_types=1);

namespace App\HandOver\Kept;

use App\Project\Project;
use App\Store\Versioned;
use Doctrine\ORM\Mapping as ORM;

/** A thing of the stage that has a name and a definition: a package, a view, a sheet, a catalogue. What is written of it are results. */
#[ORM\MappedSuperclass]
abstract class Named implements Versioned
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /** @var array<string, mixed> {@see Definition::toArray()} */
    #[ORM\Column(type: 'json')]
    protected array $definition;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    final public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 80)]
        private string $name,
        Definition $definition,
    ) {
        $this->definition = $definition->toArray();
    }

    /** What one is called in sentences: "package". */
    abstract public static function noun(): string;

    public function id(): int
    {
        return (int) $this->id;
    }

    public function name(): string
    {
        return $this->name;
    }

    abstract public function definition(): Definition;

    public function define(string $name, Definition $definition): void
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
