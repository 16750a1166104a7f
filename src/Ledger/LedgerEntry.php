<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Project\Project;
use Doctrine\ORM\Mapping as ORM;

/** One operation as it was done. Written by {@see Ledger}, never changed but for the mark that it was undone. */
#[ORM\Entity(repositoryClass: LedgerEntryRepository::class)]
#[ORM\Table(name: 'ledger_entry')]
#[ORM\UniqueConstraint(name: 'ledger_seq', columns: ['project_id', 'seq'])]
#[ORM\UniqueConstraint(name: 'ledger_request', columns: ['project_id', 'request_key'])]
#[ORM\Index(name: 'ledger_project', columns: ['project_id'])]
class LedgerEntry
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /** The entry that took this one back. */
    #[ORM\Column(nullable: true)]
    public ?int $undoneBy = null;

    /**
     * @param array<string, mixed> $detail
     * @param string               $changes    its journal in the file store
     * @param ?int                 $undoes     the entry this one takes back
     * @param ?string              $requestKey what the page called its request
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column]
        public readonly int $seq,
        #[ORM\Column(length: 60)]
        public readonly string $operation,
        #[ORM\Column(length: 400)]
        public readonly string $title,
        #[ORM\Column(type: 'json')]
        public array $detail,
        #[ORM\Column(length: 64)]
        public readonly string $changes,
        #[ORM\Column]
        public readonly int $changeCount,
        #[ORM\Column(length: 160)]
        public readonly string $authorName,
        #[ORM\Column]
        public \DateTimeImmutable $at,
        #[ORM\Column(nullable: true)]
        public readonly ?int $undoes,
        #[ORM\Column(length: 80, nullable: true)]
        public readonly ?string $requestKey,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }
}
