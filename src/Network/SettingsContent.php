<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\LedgerEntryRepository;
use App\Project\Project;
use App\Result\Content;

/** How observations are weighted. */
final class SettingsContent implements Content
{
    public function __construct(private readonly LedgerEntryRepository $entries)
    {
    }

    public static function kind(): string
    {
        return 'network-settings';
    }

    public function version(Project $project, string $which): string
    {
        return NetworkSettings::version($project);
    }

    public function words(): string
    {
        return 'the network settings';
    }

    public function origin(Project $project): array
    {
        $entry = $this->entries->lastOf($project, ChangeSettings::NAME);

        return [null === $entry ? 'the default weights' : \sprintf('weights of entry %d by %s', $entry->seq, $entry->authorName)];
    }
}
