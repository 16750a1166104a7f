<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Project\Project;
use Doctrine\ORM\Mapping as ORM;

/** One operation as it was done. Written by {@see Ledger}, never changed but for the mark that it was undone. */
#[ORM\Entity(readOnly: true)]
#[ORM\Table(name: 'ledger_entry')]
class LedgerEntry
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public readonly int $id;

    #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
    public readonly Project $project;

    #[ORM\Column]
    public readonly int $seq;

    #[ORM\Column(length: 60)]
    public readonly string $operation;

    #[ORM\Column(length: 400)]
    public readonly string $title;

    /** @var array<string, mixed> */
    #[ORM\Column(type: 'json')]
    public readonly array $detail;

    #[ORM\Column(length: 64)]
    public readonly string $changes;

    #[ORM\Column]
    public readonly int $changeCount;

    #[ORM\Column(length: 160)]
    public readonly string $authorName;

    #[ORM\Column]
    public readonly \DateTimeImmutable $at;

    #[ORM\Column(nullable: true)]
    public readonly ?int $undoneBy;

    #[ORM\Column(nullable: true)]
    public readonly ?int $undoes;
}
