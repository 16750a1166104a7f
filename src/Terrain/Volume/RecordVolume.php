<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Results;
use Mensura\Fault\UnusableInput;

/** Keeps a volume. A new one gets its number here, and a name is one volume's: no isopach is put over another. */
final class RecordVolume implements Operation
{
    /** Number it is kept under; 0 until it is kept. */
    public int $number = 0;

    /** @param Outcome $outcome of the slot PREFIX with a number, or without one for a new volume */
    public function __construct(private readonly Results $results, private readonly Outcome $outcome)
    {
    }

    public function name(): string
    {
        return 'compute-volume';
    }

    public function title(): string
    {
        $s = $this->outcome->summary;

        return \sprintf(
            'Volume %s of %s against %s: cut %.1f m³, fill %.1f m³', $s['name'], $s['of'], $s['against'], $s['cut'], $s['fill'],
        );
    }

    public function detail(): array
    {
        return $this->outcome->settings + array_diff_key($this->outcome->summary, ['depths' => true, 'elevations' => true]);
    }

    public function apply(Project $project, Journal $journal): void
    {
        $o = $this->outcome;
        $this->number = (int) substr($o->slot, \strlen(VolumeMaker::PREFIX));
        $isNew = 0 === $this->number;
        foreach ($this->results->current($project) as $slot => $result) {
            if (!str_starts_with($slot, VolumeMaker::PREFIX)) {
                continue;
            }
            if (($isNew || $slot !== $o->slot) && ($result->summary['name'] ?? null) === $o->summary['name']) {
                throw new UnusableInput('/name', \sprintf('there is a volume "%s" already; it stays as it is', $o->summary['name']));
            }
            $this->number = $isNew ? max($this->number, $result->number()) : $this->number;
        }
        $this->number += $isNew ? 1 : 0;
        $this->results->record($project, $journal, new Outcome(
            VolumeMaker::PREFIX.$this->number, $o->kind, $o->label, $o->basis, $o->settings, $o->summary, $o->output,
        ));
    }
}
