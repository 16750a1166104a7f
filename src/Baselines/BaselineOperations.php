<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Baselines\Request\OccupationRequest;
use App\Ledger\LedgerEntryRepository;
use App\Result\Results;
use App\Survey\ObservationRepository;

/** Makes the operations of the Baselines stage. */
final class BaselineOperations
{
    public function __construct(
        private readonly OccupationRepository $occupations,
        private readonly LedgerEntryRepository $entries,
        private readonly ObservationRepository $observations,
        private readonly Results $results,
    ) {
    }

    public function occupation(int $id, OccupationRequest $request, ?string $seen): ChangeOccupation
    {
        return new ChangeOccupation($this->occupations, $this->entries, $id, $request, $seen);
    }

    /** @param list<string> $slots */
    public function accept(array $slots): AcceptVectors
    {
        return new AcceptVectors($this->results, $this->observations, $slots);
    }
}
