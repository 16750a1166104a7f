<?php

declare(strict_types=1);

namespace App\Network\Plan;

use App\Project\Project;
use App\Store\Versioned;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/**
 * A network that is to be measured: marks that are not there yet, sights that are meant, and how precise they will be.
 *
 * @phpstan-type Mark array{name: string, e: float, n: float, h: float, held: bool}
 * @phpstan-type Sight array{from: string, to: string, kind: string, rounds: int}
 * @phpstan-type PlanSettings array{
 *     withMeasured: bool, vectorPlan: float, vectorHeight: float, vectorPpm: float, perKm: float, wanted: float,
 * }
 */
#[ORM\Entity(repositoryClass: NetworkPlanRepository::class)]
#[ORM\Table(name: 'network_plan')]
#[ORM\UniqueConstraint(name: 'network_plan_project', columns: ['project_id'])]
class NetworkPlan implements Versioned
{
    /** A pointing is a direction, a zenith angle and a slope distance. */
    public const KINDS = ['pointing', 'vector', 'levelled'];

    /** Metres, parts per million, metres by root of the kilometres: good equipment (common practice). */
    public const DEFAULTS = [
        'withMeasured' => true, 'vectorPlan' => 0.003, 'vectorHeight' => 0.006, 'vectorPpm' => 0.5, 'perKm' => 0.001, 'wanted' => 0.005,
    ];

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    /**
     * @param list<Mark>   $marks    metres in the project's system
     * @param list<Sight>  $sights
     * @param PlanSettings $settings
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(type: Types::JSON)]
        public array $marks = [],
        #[ORM\Column(type: Types::JSON)]
        public array $sights = [],
        #[ORM\Column(type: Types::JSON)]
        public array $settings = self::DEFAULTS,
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
