<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\Observation;
use App\Survey\ObservationRepository;
use Mensura\Fault\UnusableInput;

/** Sets observations, or single components of vectors, aside with a reason, or brings them back. */
final class SetUse implements Operation
{
    private const NAMED = 2;

    private string $title = '';

    /** @param list<Chosen> $rows */
    public function __construct(
        private readonly ObservationRepository $observations,
        private readonly array $rows,
        private readonly bool $aside,
        private readonly string $reason,
    ) {
    }

    public function name(): string
    {
        return $this->aside ? 'set-aside' : 'bring-back';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return ['rows' => array_map(static fn (Chosen $c): array => (array) $c, $this->rows), 'reason' => $this->reason];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $found = $this->observations->numbered($project, array_map(static fn (Chosen $c): int => $c->id, $this->rows));
        $names = [];
        foreach ($this->rows as $i => $row) {
            $o = $found[$row->id] ?? throw new UnusableInput("/rows/$i/id", 'there is no such observation in this project');
            if ($this->aside) {
                $o->setAside($row->bits(), $this->reason, $journal->authorName, $journal->at);
            } else {
                $o->bringBack($row->bits());
            }
            $names[] = self::inWords($o, $row);
        }
        $what = \count($names) > self::NAMED ? \sprintf('%d observations', \count($names)) : implode(', ', $names);
        $reason = '' === $this->reason ? '' : ': '.$this->reason;
        $this->title = $this->aside ? "Set aside $what".$reason : "Brought back $what";
    }

    private static function inWords(Observation $o, Chosen $row): string
    {
        $component = null === $row->component ? '' : ' '.$row->component;
        $set = '' === $o->setName ? '' : '/'.$o->setName;

        return \sprintf('%s%s %s%s → %s', $o->kind, $component, $o->fromName, $set, $o->toName);
    }
}
