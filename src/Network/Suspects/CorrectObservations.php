<?php

declare(strict_types=1);

namespace App\Network\Suspects;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Network\Request\CorrectionRequest;
use App\Project\Project;
use App\Survey\Correction;
use App\Survey\CorrectionRepository;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;

/** Puts right what was recorded wrong: the file keeps what it says, whoever reads the observations gets them corrected. */
final readonly class CorrectObservations implements Operation
{
    public function __construct(
        private CorrectionRepository $corrections,
        private ObservationRepository $observations,
        private CorrectionRequest $request,
    ) {
    }

    public function name(): string
    {
        return 'correct-observations';
    }

    public function title(): string
    {
        return \sprintf('Corrected %s%s', $this->request->words, '' === $this->request->reason ? '' : ': '.$this->request->reason);
    }

    public function detail(): array
    {
        return ['cause' => $this->request->cause, 'changes' => $this->request->changes, 'reason' => $this->request->reason];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $changes = [];
        foreach (array_values($this->request->changes) as $i => $change) {
            $changes[] = $this->checked($change, "/changes/$i");
        }
        $found = $this->observations->numbered($project, array_values(array_unique(array_column($changes, 'id'))));
        foreach ($changes as $i => $change) {
            $o = $found[$change['id']] ?? throw new UnusableInput("/changes/$i/id", 'there is no such observation in this project');
            if (($change['to'] ?? null) === $o->fromName) {
                throw new UnusableInput("/changes/$i/to", \sprintf('%s is the station itself', $o->fromName));
            }
        }
        $this->corrections->add(new Correction(
            $project, $this->request->cause, $this->request->words, $this->request->reason, $journal->authorName, $journal->at, $changes,
        ));
    }

    /** @return array{id: int, field: string, add?: float, to?: string} */
    private function checked(mixed $change, string $path): array
    {
        $id = \is_array($change) ? $change['id'] ?? null : null;
        $field = \is_array($change) ? $change['field'] ?? null : null;
        if (!\is_int($id)) {
            throw new UnusableInput("$path/id", 'is the number of an observation');
        }
        if ('to' === $field) {
            $to = $change['to'] ?? null;
            if (!\is_string($to) || '' === trim($to) || mb_strlen($to) > 60) {
                throw new UnusableInput("$path/to", 'is the name of the real target, up to 60 characters');
            }

            return ['id' => $id, 'field' => 'to', 'to' => trim($to)];
        }
        if (!\in_array($field, Correction::NUMBERS, true)) {
            throw new UnusableInput("$path/field", 'is to, or one of '.implode(', ', Correction::NUMBERS));
        }
        $add = $change['add'] ?? null;
        if (!\is_int($add) && !\is_float($add) || !is_finite((float) $add) || abs((float) $add) > 1e7) {
            throw new UnusableInput("$path/add", 'is the number to add');
        }

        return ['id' => $id, 'field' => $field, 'add' => (float) $add];
    }
}
