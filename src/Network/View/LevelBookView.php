<?php

declare(strict_types=1);

namespace App\Network\View;

/** The levelling book of a project, worked out as far as it goes: metres. */
final readonly class LevelBookView
{
    /**
     * @param list<array{id: string, h: float}> $benchmarks typed
     * @param list<array{id: string, h: float}> $known      heights of the project's own control
     * @param list<LevelRunView> $runs
     * @param ?string $fault why the book as a whole cannot be worked out
     * @param list<array{run: string, from: string, to: string, setups: int, length: ?float, difference: float, given: ?float,
     *     misclosure: ?float, allowable: ?float, passed: ?bool, unbalance: ?float}> $sections
     * @param list<array{id: string, h: float, adjusted: bool, role: string, run: ?string,
     *     again: list<array{run: string, h: float, difference: float}>}> $points
     * @param list<array{runs: list<string>, misclosure: float, length: ?float, setups: int, allowable: ?float, passed: ?bool}> $loops
     * @param list<array{run: string, from: string, to: string, value: float, length: ?float, setups: int}> $network
     * @param list<string> $warnings
     * @param ?float $perKm   standard deviation of a levelled kilometre from the misclosures, null where there are none
     * @param ?float $perSetup likewise of a setup
     */
    public function __construct(
        public LevelSettingsView $settings,
        public string $version,
        public array $benchmarks,
        public array $known,
        public array $runs,
        public ?string $fault,
        public array $sections,
        public array $points,
        public array $loops,
        public array $network,
        public array $warnings,
        public ?float $perKm,
        public ?float $perSetup,
    ) {
    }
}
