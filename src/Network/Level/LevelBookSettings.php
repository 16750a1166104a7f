<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Project\Project;
use App\Store\Versioned;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** How a project's levelling book is worked out, and the benchmarks that were typed for it. */
#[ORM\Entity(repositoryClass: LevelBookSettingsRepository::class)]
#[ORM\Table(name: 'level_book')]
#[ORM\UniqueConstraint(name: 'level_book_project', columns: ['project_id'])]
class LevelBookSettings implements Versioned
{
    /** FGCS (1984), third order: 12 mm times the root of the kilometres; 1.5 mm between repeats (common practice). */
    public const DEFAULTS = [
        'k' => 0.012, 'per' => 'km', 'distribute' => 'length', 'curvature' => false, 'refraction' => 0.13, 'repeatLimit' => 0.0015,
        'scalePpm' => 0.0, 'expansion' => 0.0, 'temperature' => 20.0, 'referenceTemperature' => 20.0,
    ];

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    /**
     * @param array<string, float|string|bool>        $settings   keys of DEFAULTS
     * @param list<array{id: string, h: float}>       $benchmarks typed, beside those of the project
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(type: Types::JSON)]
        public array $settings = self::DEFAULTS,
        #[ORM\Column(type: Types::JSON)]
        public array $benchmarks = [],
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
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
