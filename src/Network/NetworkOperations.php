<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\LedgerEntryRepository;
use App\Network\Request\ControlRequest;
use App\Network\Request\CorrectionRequest;
use App\Network\Request\SettingsRequest;
use App\Network\Request\SetUseRequest;
use App\Network\Suspects\CorrectObservations;
use App\Network\Suspects\WithdrawCorrection;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\CorrectionRepository;
use App\Survey\FollowsRename;
use App\Survey\ObservationRepository;
use App\Survey\PointRepository;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Makes the operations of the Network stage. */
final class NetworkOperations
{
    /** @param iterable<FollowsRename> $followers */
    public function __construct(
        private readonly PointRepository $points,
        private readonly ObservationRepository $observations,
        private readonly CorrectionRepository $corrections,
        private readonly LedgerEntryRepository $entries,
        private readonly Results $results,
        private readonly FileStore $store,
        #[AutowireIterator('app.follows_rename')] private readonly iterable $followers,
    ) {
    }

    public function accept(): AcceptCoordinates
    {
        return new AcceptCoordinates($this->points, $this->results, $this->store);
    }

    /** @param ?string $seen version of the mark that was edited */
    public function control(ControlRequest $request, ?string $seen): EditControl
    {
        return new EditControl($this->points, $this->entries, $request, $seen);
    }

    /** @param ?string $seen version of the settings that were edited */
    public function settings(SettingsRequest $request, ?string $seen): ChangeSettings
    {
        return new ChangeSettings($this->entries, $request, $seen);
    }

    public function rename(string $from, string $to): RenamePoint
    {
        return new RenamePoint($this->points, $this->observations, $this->followers, $from, $to);
    }

    /** @param list<string> $names */
    public function hold(array $names): HoldControl
    {
        return new HoldControl($this->points, array_values(array_unique($names)));
    }

    /** @param list<string> $names */
    public function holdOut(array $names): HoldOut
    {
        return new HoldOut($this->points, array_values(array_unique($names)));
    }

    public function correct(CorrectionRequest $request): CorrectObservations
    {
        return new CorrectObservations($this->corrections, $this->observations, $request);
    }

    public function withdraw(int $correction): WithdrawCorrection
    {
        return new WithdrawCorrection($this->corrections, $correction);
    }

    public function setUse(SetUseRequest $request): SetUse
    {
        return new SetUse($this->observations, Chosen::of($request->rows), $request->aside, $request->reason);
    }

    /** @param list<Chosen> $rows */
    public function setAside(array $rows, string $reason): SetUse
    {
        return new SetUse($this->observations, $rows, true, $reason);
    }
}
