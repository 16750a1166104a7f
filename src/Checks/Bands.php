<?php

declare(strict_types=1);

namespace App\Checks;

use App\Project\Project;
use App\Store\Versioned;
use Doctrine\ORM\Mapping as ORM;

/** The tolerance bands a comparison is reported in. Metres. */
#[ORM\Entity(repositoryClass: BandsRepository::class)]
#[ORM\Table(name: 'bands')]
#[ORM\UniqueConstraint(name: 'bands_of_comparison', columns: ['project_id', 'number'])]
#[ORM\Index(name: 'bands_project', columns: ['project_id'])]
class Bands implements Versioned
{
    /** Where nobody said otherwise: three bands of 6 mm on either side, as the page begins with. */
    public const LIMITS = [-0.018, -0.012, -0.006, 0.006, 0.012, 0.018];
    public const COLOURS = ['#16307f', '#3561c6', '#8ea8de', '#e9e3cf', '#dd9a7b', '#b64a2c', '#7c1d12'];

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /** @var list<float> */
    #[ORM\Column(type: 'json')]
    private array $limits = self::LIMITS;

    /** @var list<string> */
    #[ORM\Column(type: 'json')]
    private array $colours = self::COLOURS;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        /** Of the comparison. */
        #[ORM\Column]
        public readonly int $number,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    /** @return list<float> growing */
    public function limits(): array
    {
        return array_map(floatval(...), $this->limits);
    }

    /** @return list<string> one more than limits, from the lowest up */
    public function colours(): array
    {
        return $this->colours;
    }

    /**
     * @param list<float>  $limits
     * @param list<string> $colours
     */
    public function keep(array $limits, array $colours): void
    {
        $this->limits = $limits;
        $this->colours = $colours;
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
