<?php

declare(strict_types=1);

namespace App\Result;

use App\Project\Project;
use App\Store\Journaled;
use Doctrine\ORM\Mapping as ORM;

/**
 * One run of something computed. A slot is the place a result has in the project ("network", "surface:3"); its newest run
 * counts. Inputs are contents ("observations" => version) or other slots ("result:network" => output), as they were when
 * they were read.
 */
#[ORM\Entity(repositoryClass: ResultRepository::class)]
#[ORM\Table(name: 'result')]
#[ORM\Index(name: 'result_slot', columns: ['project_id', 'slot'])]
#[ORM\Index(name: 'result_project', columns: ['project_id'])]
class Result implements Journaled
{
    public const RESULT = 'result:';

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /**
     * @param array<string, string> $inputs
     * @param array<string, mixed>  $settings what it was computed with
     * @param array<string, mixed>  $summary  figures shown without opening the output
     * @param string                $output   its bytes in the file store, or a hash of its values
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 80)]
        public readonly string $slot,
        #[ORM\Column(length: 30)]
        public readonly string $kind,
        #[ORM\Column(length: 200)]
        public readonly string $label,
        #[ORM\Column]
        public readonly int $run,
        #[ORM\Column(type: 'json')]
        public array $inputs,
        #[ORM\Column(type: 'json')]
        public array $settings,
        #[ORM\Column(type: 'json')]
        public array $summary,
        #[ORM\Column(length: 64)]
        public readonly string $output,
        #[ORM\Column(length: 160)]
        public readonly string $authorName,
        #[ORM\Column]
        public \DateTimeImmutable $createdAt,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    public function at(): string
    {
        return $this->createdAt->format('Y-m-d\TH:i:s\Z');
    }

    /** As it is named within a sentence. */
    public function inWords(): string
    {
        return lcfirst($this->label);
    }

    /** @return list<string> slots it rests on */
    public function restsOn(): array
    {
        $slots = array_filter(
            array_map(strval(...), array_keys($this->inputs)),
            static fn (string $i): bool => str_starts_with($i, self::RESULT),
        );

        return array_values(array_map(static fn (string $i): string => substr($i, \strlen(self::RESULT)), $slots));
    }

    /** The number in a slot such as "surface:3". */
    public function number(): int
    {
        return (int) (explode(':', $this->slot)[1] ?? 0);
    }
}
