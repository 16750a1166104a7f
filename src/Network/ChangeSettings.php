<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\EditedMeanwhile;
use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Ledger\Operation;
use App\Network\Request\SettingsRequest;
use App\Project\Project;

/** Changes how observations are weighted and the adjustment is made. */
final class ChangeSettings implements Operation
{
    public const NAME = 'change-network-settings';

    public function __construct(
        private readonly LedgerEntryRepository $entries,
        private readonly SettingsRequest $settings,
        private readonly ?string $seen,
    ) {
    }

    public function name(): string
    {
        return self::NAME;
    }

    public function title(): string
    {
        return 'Changed the network settings';
    }

    public function detail(): array
    {
        return (array) $this->settings;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $version = NetworkSettings::version($project);
        if (null !== $this->seen && $version !== $this->seen) {
            $entry = $this->entries->lastOf($project, self::NAME);
            throw new EditedMeanwhile('The weighting', $entry, (array) NetworkSettings::of($project), $version);
        }
        $project->weighBy((array) $this->settings + array_intersect_key($project->networkSettings(), ['book' => true]));
    }
}
