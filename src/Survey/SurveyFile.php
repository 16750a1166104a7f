<?php

declare(strict_types=1);

namespace App\Survey;

use App\Account\User;
use App\Project\Project;
use App\Store\Journaled;
use Doctrine\ORM\Mapping as ORM;

/** A file as it was received; its bytes are in the file store. It waits until its reading is accepted. */
#[ORM\Entity(repositoryClass: SurveyFileRepository::class)]
#[ORM\Table(name: 'survey_file')]
#[ORM\Index(name: 'survey_file_project', columns: ['project_id'])]
class SurveyFile implements Journaled
{
    public const WAITING = 'waiting';
    public const ACCEPTED = 'accepted';

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    #[ORM\Column(length: 20, options: ['default' => self::WAITING])]
    private string $state = self::WAITING;

    /** @var array<string, mixed> how its columns are understood, as its format keeps it */
    #[ORM\Column(type: 'json')]
    private array $mapping = [];

    /** @var array<string, string|bool|float|null> what its coordinates and heights mean, as answered */
    #[ORM\Column(type: 'json', options: ['default' => '[]'])]
    private array $meaning = [];

    /** @var array<string, string> what its names stand for, where that was answered */
    #[ORM\Column(type: 'json', options: ['default' => '[]'])]
    private array $names = [];

    #[ORM\Column(options: ['default' => 0])]
    private int $records = 0;

    #[ORM\Column(options: ['default' => 0])]
    private int $leftOut = 0;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $acceptedAt = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Project $project,
        #[ORM\Column(length: 255)]
        private string $name,
        #[ORM\Column(length: 64)]
        private string $sha256,
        #[ORM\Column]
        private int $size,
        #[ORM\Column(length: 30)]
        private string $kind,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
        private User $author,
        #[ORM\Column]
        private \DateTimeImmutable $receivedAt,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    public function project(): Project
    {
        return $this->project;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function sha256(): string
    {
        return $this->sha256;
    }

    public function size(): int
    {
        return $this->size;
    }

    public function kind(): string
    {
        return $this->kind;
    }

    public function state(): string
    {
        return $this->state;
    }

    public function isWaiting(): bool
    {
        return self::WAITING === $this->state;
    }

    public function author(): User
    {
        return $this->author;
    }

    public function receivedAt(): \DateTimeImmutable
    {
        return $this->receivedAt;
    }

    public function acceptedAt(): ?\DateTimeImmutable
    {
        return $this->acceptedAt;
    }

    /** @return array<string, mixed> */
    public function mapping(): array
    {
        return $this->mapping;
    }

    /** @return array<string, string|bool|float|null> */
    public function meaning(): array
    {
        return $this->meaning;
    }

    /** @return array<string, string> */
    public function names(): array
    {
        return $this->names;
    }

    /** @param array<string, string> $names */
    public function call(array $names): void
    {
        $this->names = $names;
    }

    public function records(): int
    {
        return $this->records;
    }

    public function leftOut(): int
    {
        return $this->leftOut;
    }

    /** @param array<string, mixed> $mapping */
    public function read(string $kind, array $mapping): void
    {
        $this->kind = $kind;
        $this->mapping = $mapping;
    }

    /** @param array<string, string|bool|float|null> $meaning */
    public function mean(array $meaning): void
    {
        $this->meaning = $meaning;
    }

    public function accept(int $records, int $leftOut, \DateTimeImmutable $at): void
    {
        $this->state = self::ACCEPTED;
        $this->records = $records;
        $this->leftOut = $leftOut;
        $this->acceptedAt = $at;
    }
}
