<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Ledger\Results;
use App\Project\Project;

final class RecordExport implements Operation
{
    /**
     * @param list<array{what: string, expected: string, found: string, holds: bool}> $checks
     * @param list<string>         $contents
     * @param list<string>         $slots
     * @param array<string, mixed> $settings
     */
    public function __construct(
        private readonly Results $results,
        private readonly string $slot,
        private readonly Written $written,
        private readonly array $checks,
        private readonly bool $holds,
        private readonly string $output,
        private readonly array $contents,
        private readonly array $slots,
        private readonly array $settings,
    ) {
    }

    public function name(): string
    {
        return 'hand-over';
    }

    public function title(): string
    {
        return \sprintf('Wrote %s: receipt %s', $this->written->fileName, $this->holds ? 'holds' : 'does not hold');
    }

    public function detail(): array
    {
        return ['file' => $this->written->fileName, 'sha256' => $this->output, 'checks' => $this->checks, 'leftOut' => $this->written->leftOut];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->results->record($project, $journal, $this->slot, Exporter::kind(), $this->written->label, $this->contents, $this->slots, $this->settings, [
            'file' => $this->written->fileName, 'size' => \strlen($this->written->bytes), 'checks' => $this->checks, 'holds' => $this->holds, 'leftOut' => $this->written->leftOut,
        ], $this->output);
    }
}
