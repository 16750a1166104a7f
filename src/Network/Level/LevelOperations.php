<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Ledger\LedgerEntryRepository;
use App\Network\Request\LevelHandRequest;
use App\Network\Request\LevelRunRequest;
use App\Network\Request\LevelSettingsRequest;
use App\Survey\ObservationRepository;
use App\Survey\PointRepository;

/** Makes the operations of the levelling book. */
final readonly class LevelOperations
{
    public function __construct(
        private LevelRunRepository $runs,
        private LevelBookSettingsRepository $settings,
        private LedgerEntryRepository $entries,
        private ObservationRepository $observations,
        private PointRepository $points,
        private LevelDesk $desk,
    ) {
    }

    public function keep(LevelRunRequest $request, ?string $seen): KeepRun
    {
        return new KeepRun($this->runs, $this->entries, $request, $seen);
    }

    public function remove(int $run): RemoveRun
    {
        return new RemoveRun($this->runs, $run);
    }

    public function settings(LevelSettingsRequest $request, ?string $seen): ChangeLevelSettings
    {
        return new ChangeLevelSettings($this->settings, $this->entries, $request, $seen);
    }

    public function hand(LevelHandRequest $request): HandLevels
    {
        return new HandLevels($this->desk, $this->observations, $this->points, $request);
    }

    public function control(): LevelControl
    {
        return new LevelControl($this->desk, $this->points);
    }
}
