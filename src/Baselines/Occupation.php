<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Store\ExactFloat;
use App\Store\Versioned;
use App\Survey\SurveyFile;
use Doctrine\ORM\Mapping as ORM;
use Mensura\Gnss\AntennaHeight;

/** One receiver on one mark: what its file says, and what was made right by hand. Seconds of GPS time since its first instant. */
#[ORM\Entity(repositoryClass: OccupationRepository::class)]
#[ORM\Table(name: 'occupation')]
#[ORM\Index(name: 'occupation_project', columns: ['project_id'])]
class Occupation implements Versioned
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /** Kind, value, radius and place of the antenna height, metres: {@see AntennaHeight}. */
    #[ORM\Column(length: 20, options: ['default' => AntennaHeight::VERTICAL])]
    public string $heightKind = AntennaHeight::VERTICAL;

    #[ORM\Column(type: ExactFloat::NAME, options: ['default' => 0])]
    public float $heightValue = 0.0;

    #[ORM\Column(type: ExactFloat::NAME, options: ['default' => 0])]
    public float $heightRadius = 0.0;

    #[ORM\Column(type: ExactFloat::NAME, options: ['default' => 0])]
    public float $heightAbove = 0.0;

    #[ORM\Column(length: 60, options: ['default' => ''])]
    public string $antenna = '';

    /** The receiver moved: it has a track instead of a place. */
    #[ORM\Column(options: ['default' => false])]
    public bool $moves = false;

    /** What is used of the session; null where nothing is trimmed. */
    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $trimFrom = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $trimTo = null;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly SurveyFile $file,
        #[ORM\Column(length: 60)]
        public string $marker,
    ) {
        $recorded = $this->recorded();
        $this->heightValue = $recorded->offset[0];
        $this->antenna = $recorded->antenna;
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    public function recorded(): Recorded
    {
        return Recorded::in($this->file);
    }

    public function height(): AntennaHeight
    {
        return new AntennaHeight($this->heightKind, $this->heightValue, $this->heightRadius, $this->heightAbove);
    }

    /** First and last instant used. */
    public function from(): float
    {
        return max($this->recorded()->from, $this->trimFrom ?? -\INF);
    }

    public function to(): float
    {
        return min($this->recorded()->to, $this->trimTo ?? \INF);
    }

    /** @return list<string|float|bool|null> what a baseline rests on, however it is trimmed */
    public function recording(): array
    {
        return [
            $this->file->sha256(), $this->marker, $this->antenna, $this->heightKind, $this->heightValue, $this->heightRadius,
            $this->heightAbove,
        ];
    }

    /** @return list<string|float|bool|null> what a static baseline rests on */
    public function contents(): array
    {
        return [...$this->recording(), $this->trimFrom, $this->trimTo, $this->moves];
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
