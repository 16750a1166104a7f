<?php

declare(strict_types=1);

namespace App\Network\View;

/** The network stage. */
final readonly class NetworkView
{
    /**
     * @param list<RowView> $rows
     * @param list<StationView> $stations
     * @param list<GroupView> $kinds
     * @param list<GroupView> $setups
     * @param list<RunView> $runs
     * @param list<string> $stale
     * @param list<CorrectionView> $corrections
     * @param list<RelativeView> $relative
     */
    public function __construct(
        public SettingsView $settings,
        public string $settingsVersion,
        public array $rows,
        public array $stations,
        public array $kinds,
        public array $setups,
        public array $runs,
        public array $stale,
        public ?ComparisonView $comparison,
        public bool $accepted,
        public ?float $largestEllipse,
        public ?string $largestEllipseAt,
        public array $corrections,
        public array $relative,
    ) {
    }
}
