<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;

final class ChangeSettings implements Operation
{
    /** @param array<string, mixed> $settings */
    public function __construct(private readonly array $settings)
    {
    }

    public function name(): string
    {
        return 'change-network-settings';
    }

    public function title(): string
    {
        return 'Changed the network settings';
    }

    public function detail(): array
    {
        return $this->settings;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $journal->update('project', $project->id(), ['network_settings' => json_encode($this->settings, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)]);
    }
}
