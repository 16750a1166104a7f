<?php

declare(strict_types=1);

namespace App\Review;

use App\Project\Project;
use App\Store\Journaled;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** What somebody says about a result, a station or a file that was handed over; an answer to it; or that it was checked. */
#[ORM\Entity(repositoryClass: RemarkRepository::class)]
#[ORM\Table(name: 'remark')]
#[ORM\Index(name: 'remark_project', columns: ['project_id'])]
#[ORM\Index(name: 'remark_about', columns: ['project_id', 'about'])]
class Remark implements Journaled
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        /** The place of a result, such as "surface:3" or "export:csv"; "point:NAME" for a station. */
        #[ORM\Column(length: 160)]
        public readonly string $about,
        #[ORM\Column(type: Types::TEXT)]
        public readonly string $text,
        /** The remark it answers; 0 for none. */
        #[ORM\Column(options: ['default' => 0])]
        public readonly int $answers,
        #[ORM\Column(options: ['default' => false])]
        public readonly bool $checks,
        /** Hash of what was seen when it was checked; empty for a station. */
        #[ORM\Column(length: 64, options: ['default' => ''])]
        public readonly string $output,
        #[ORM\Column(length: 160)]
        public readonly string $author,
        #[ORM\Column]
        public \DateTimeImmutable $at,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }
}
