<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;

/** Keeps a named thing of the Reference stage: a system of the project's own, a grid file or a localization. */
final class Keep implements Operation
{
    private ?Kept $kept = null;

    /**
     * @template T of Kept
     *
     * @param KeptRepository<T>             $repository
     * @param \Closure(Project, Journal): T $make
     * @param array<string, mixed>          $detail
     */
    public function __construct(
        private readonly KeptRepository $repository,
        private readonly string $operation,
        private readonly string $thing,
        private readonly string $title,
        private readonly \Closure $make,
        private readonly array $detail = [],
    ) {
    }

    public function name(): string
    {
        return $this->operation;
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return $this->detail;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->kept = ($this->make)($project, $journal);
        $this->repository->keep($project, $this->kept, $this->thing);
    }

    /** Database id of what was kept. */
    public function id(): int
    {
        return (int) $this->kept?->id();
    }
}
