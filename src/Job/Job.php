<?php

declare(strict_types=1);

namespace App\Job;

use App\Account\User;
use App\Project\Project;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/**
 * Long work and how far it is. A worker holds it by a lease that is prolonged as long as it lives; what lets go of a lease is taken
 * up again, three times at most.
 */
#[ORM\Entity(repositoryClass: JobRepository::class)]
#[ORM\Table(name: 'job')]
#[ORM\Index(name: 'job_project', columns: ['project_id'])]
#[ORM\Index(name: 'job_author', columns: ['author_id'])]
#[ORM\Index(name: 'job_state', columns: ['state'])]
#[ORM\UniqueConstraint(name: 'job_request', columns: ['project_id', 'request_key'])]
class Job
{
    public const QUEUED = 'queued';
    public const RUNNING = 'running';
    public const DONE = 'done';
    public const FAILED = 'failed';
    public const CANCELLED = 'cancelled';

    #[ORM\Column(length: 20)]
    public string $state = self::QUEUED;

    #[ORM\Column(length: 120, options: ['default' => ''])]
    public string $stage = '';

    /** From 0 to 1. */
    #[ORM\Column(options: ['default' => 0])]
    public float $progress = 0.0;

    #[ORM\Column(type: Types::TEXT, nullable: true)]
    public ?string $error = null;

    /** @var ?array<string, mixed> what a job found that is not stored as a result */
    #[ORM\Column(type: 'json', nullable: true)]
    public ?array $outcome = null;

    /** Machine and process that hold it. */
    #[ORM\Column(length: 80, nullable: true)]
    public ?string $worker = null;

    #[ORM\Column(options: ['default' => 0])]
    public int $attempts = 0;

    #[ORM\Column(options: ['default' => false])]
    public bool $cancelRequested = false;

    #[ORM\Column(nullable: true)]
    public ?\DateTimeImmutable $startedAt = null;

    #[ORM\Column(nullable: true)]
    public ?\DateTimeImmutable $finishedAt = null;

    #[ORM\Column(nullable: true)]
    public ?\DateTimeImmutable $leaseUntil = null;

    /** When a worker was last asked to take it up. */
    #[ORM\Column(nullable: true)]
    public ?\DateTimeImmutable $askedAt = null;

    /** @param array<string, mixed> $payload */
    public function __construct(
        #[ORM\Id, ORM\Column(length: 36)]
        public readonly string $id,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
        public readonly User $author,
        #[ORM\Column(length: 40)]
        public readonly string $kind,
        #[ORM\Column(length: 200)]
        public readonly string $title,
        #[ORM\Column(type: 'json')]
        public array $payload,
        #[ORM\Column]
        public \DateTimeImmutable $createdAt,
        /** What the page that asked for it called its request, so that asking again starts nothing new. */
        #[ORM\Column(length: 80, nullable: true)]
        public readonly ?string $requestKey = null,
    ) {
    }

    public function isOver(): bool
    {
        return !\in_array($this->state, [self::QUEUED, self::RUNNING], true);
    }

    /** Process of the worker that holds it, or held; 0 for none. */
    public function process(): int
    {
        return (int) substr((string) strrchr((string) $this->worker, ':'), 1);
    }

    /** Whether a process of this machine that is alive holds it. */
    public function isHere(): bool
    {
        return str_starts_with((string) $this->worker, gethostname().':') && $this->process() > 0 && posix_kill($this->process(), 0);
    }
}
