<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use App\Store\ExactFloat;
use App\Store\Versioned;
use Doctrine\ORM\Mapping as ORM;

/**
 * A point of the project, metres in its system and heights. A control mark also has what is given about it: values,
 * which of them are held ("enh"), or with which standard deviation they enter the adjustment.
 */
#[ORM\Entity(repositoryClass: PointRepository::class)]
#[ORM\Table(name: 'point')]
#[ORM\UniqueConstraint(name: 'point_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'point_project', columns: ['project_id'])]
#[ORM\Index(name: 'point_file', columns: ['file_id'])]
class Point implements Versioned
{
    public const CONTROL = 'control';
    public const ADJUSTED = 'adjusted';
    public const SURVEYED = 'surveyed';
    /** Known, and held out of every adjustment and surface: what is computed is compared with it. */
    public const CHECK = 'check';
    public const ROLES = [self::CONTROL, self::ADJUSTED, self::SURVEYED, self::CHECK];
    /** Where its place in the project comes from. */
    public const FROM_FILE = 'file';
    /** Known on the earth, or in the numbers of a site only. */
    public const GLOBALLY = 'global';
    public const LOCALLY = 'local';

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    #[ORM\Column(length: 60, options: ['default' => ''])]
    public string $code = '';

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $e = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $n = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $h = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $givenE = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $givenN = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $givenH = null;

    #[ORM\Column(length: 3, options: ['default' => ''])]
    public string $held = '';

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $sdE = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $sdN = null;

    #[ORM\Column(type: ExactFloat::NAME, nullable: true)]
    public ?float $sdH = null;

    #[ORM\ManyToOne, ORM\JoinColumn(nullable: true)]
    public ?SurveyFile $file = null;

    /** Line of the file. */
    #[ORM\Column(nullable: true)]
    public ?int $line = null;

    /** How the file says it was measured, JSON; empty where it says nothing. */
    #[ORM\Column(length: 400, options: ['default' => ''])]
    public string $measured = '';

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 60)]
        public string $name,
        #[ORM\Column(length: 20)]
        public string $role,
        #[ORM\Column(length: 20)]
        public string $source,
        #[ORM\Column(length: 10, options: ['default' => self::GLOBALLY])]
        public string $known,
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

    public function isAdjusted(): bool
    {
        return self::ADJUSTED === $this->source;
    }

    public function moveTo(?float $e, ?float $n, ?float $h): void
    {
        $this->e = $e;
        $this->n = $n;
        $this->h = $h;
    }

    /** Takes it out of the control: it is known, and only compared with. Whether there is anything known of it. */
    public function holdOut(): bool
    {
        if (null === $this->givenE && null === $this->givenN && null === $this->givenH) {
            if ($this->isAdjusted() || null === $this->e) {
                return false;
            }
            [$this->givenE, $this->givenN, $this->givenH] = [$this->e, $this->n, $this->h];
        }
        $this->role = self::CHECK;
        $this->held = '';
        $this->sdE = $this->sdN = $this->sdH = null;

        return true;
    }

    /** Makes it a control mark, or changes what is given about it. */
    public function give(Given $given): void
    {
        $this->role = self::CONTROL;
        $this->givenE = $given->e;
        $this->givenN = $given->n;
        $this->givenH = $given->h;
        $this->held = $given->held;
        $this->sdE = $given->sdE;
        $this->sdN = $given->sdN;
        $this->sdH = $given->sdH;
        if (!$this->isAdjusted()) {
            $this->moveTo($given->e, $given->n, $given->h);
        }
    }
}
