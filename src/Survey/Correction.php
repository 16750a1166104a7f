<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use App\Store\Journaled;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/**
 * What was put right in recorded observations, by whom and why. The observations keep what the file says; whoever reads
 * them gets them with their corrections.
 *
 * @phpstan-type Change array{id: int, field: string, add?: float, to?: string}
 */
#[ORM\Entity(repositoryClass: CorrectionRepository::class)]
#[ORM\Table(name: 'correction')]
#[ORM\Index(name: 'correction_project', columns: ['project_id'])]
class Correction implements Journaled
{
    /** Numbers of an observation that a correction may add to. */
    public const NUMBERS = ['v1', 'v2', 'v3', 'hi', 'ht'];

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /**
     * @param list<Change> $changes of an observation: what is added to a number of it, or its real target
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 40)]
        public readonly string $cause,
        #[ORM\Column(length: 300)]
        public readonly string $words,
        #[ORM\Column(length: 400)]
        public readonly string $reason,
        #[ORM\Column(length: 160)]
        public readonly string $author,
        #[ORM\Column]
        public readonly \DateTimeImmutable $createdAt,
        #[ORM\Column(type: Types::JSON)]
        public array $changes,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    /** A point has another name now. */
    public function rename(string $from, string $to): void
    {
        foreach ($this->changes as $i => $change) {
            if (($change['to'] ?? null) === $from) {
                $this->changes[$i]['to'] = $to;
            }
        }
    }
}
