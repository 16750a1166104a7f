<?php

declare(strict_types=1);

namespace App\Intake;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;

/** Puts the files of a zip on the list, all or none. */
final readonly class ReceiveArchive implements Operation
{
    /** @param non-empty-list<ReceiveFile> $files */
    public function __construct(private string $name, public array $files)
    {
    }

    public function name(): string
    {
        return 'receive-archive';
    }

    public function title(): string
    {
        return \sprintf('Received %d file%s from %s', \count($this->files), 1 === \count($this->files) ? '' : 's', $this->name);
    }

    public function detail(): array
    {
        return ['archive' => $this->name, 'files' => array_map(static fn (ReceiveFile $f): array => $f->detail(), $this->files)];
    }

    public function apply(Project $project, Journal $journal): void
    {
        foreach ($this->files as $file) {
            $file->apply($project, $journal);
        }
    }
}
