<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use App\Store\ExactFloat;
use App\Store\Versioned;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/**
 * One thing measured: degrees for angles, metres for lengths; the three components of a vector in v1 to v3. Which of its
 * scalars count is a bit each in used (7 is all).
 */
#[ORM\Entity(repositoryClass: ObservationRepository::class)]
#[ORM\Table(name: 'observation')]
#[ORM\Index(name: 'observation_project', columns: ['project_id'])]
#[ORM\Index(name: 'observation_file', columns: ['file_id'])]
class Observation implements Versioned
{
    public const ALL = 7;
    /** Bits of the components of a vector in used. */
    public const COMPONENTS = ['dx' => 1, 'dy' => 2, 'dz' => 4];

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $v2 = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $v3 = null;

    /** Standard deviation stated for it alone; null takes that of its kind. */
    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $sd = null;

    /** Height of the instrument, metres. */
    #[ORM\Column(type: ExactFloat::NAME, options: ['default' => 0])]
    public float $hi = 0.0;

    /** Height of the target, metres. */
    #[ORM\Column(type: ExactFloat::NAME, options: ['default' => 0])]
    public float $ht = 0.0;

    /** @var ?list<list<float>> of a vector, square metres */
    #[ORM\Column(type: 'json', nullable: true)]
    public ?array $covariance = null;

    /** The station an angle is measured from, or the back staff of a levelled difference. */
    #[ORM\Column(length: 60, nullable: true)]
    public ?string $backName = null;

    /** Length levelled over or sighted along, metres. */
    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $length = null;

    /** Face of the instrument, 1 or 2; null where both are meant already. */
    #[ORM\Column(type: Types::SMALLINT, nullable: true)]
    public ?int $face = null;

    /** Round within its setup. */
    #[ORM\Column(nullable: true)]
    public ?int $round = null;

    /** When it was measured, UTC. */
    #[ORM\Column(nullable: true)]
    public ?\DateTimeImmutable $observedAt = null;

    /** Recorded with it: degrees Celsius, hectopascal and percent, with semicolons between. */
    #[ORM\Column(length: 60, nullable: true)]
    public ?string $weather = null;

    #[ORM\ManyToOne, ORM\JoinColumn(nullable: true)]
    public ?SurveyFile $file = null;

    /** Line of the file. */
    #[ORM\Column(nullable: true)]
    public ?int $line = null;

    #[ORM\Column(options: ['default' => self::ALL])]
    public int $used = self::ALL;

    #[ORM\Column(length: 400, options: ['default' => ''])]
    public string $reason = '';

    #[ORM\Column(length: 160, nullable: true)]
    public ?string $asideBy = null;

    #[ORM\Column(nullable: true)]
    public ?\DateTimeImmutable $asideAt = null;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 30)]
        public readonly string $kind,
        /** The setup's set of directions, or the session of a vector. */
        #[ORM\Column(length: 60, options: ['default' => ''])]
        public readonly string $setName,
        #[ORM\Column(length: 60)]
        public string $fromName,
        #[ORM\Column(length: 60)]
        public string $toName,
        #[ORM\Column(type: ExactFloat::NAME)]
        public float $v1,
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

    public function setAside(int $bits, string $reason, string $by, \DateTimeImmutable $at): void
    {
        $this->used &= ~$bits;
        $this->reason = $reason;
        $this->asideBy = $by;
        $this->asideAt = $at;
    }

    public function bringBack(int $bits): void
    {
        $this->used |= $bits;
        if (self::ALL === $this->used) {
            $this->reason = '';
            $this->asideBy = $this->asideAt = null;
        }
    }
}
