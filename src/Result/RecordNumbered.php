<?php

declare(strict_types=1);

namespace App\Result;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/**
 * Keeps one of the things a project has many of: volumes, sections, comparisons. A new one gets its number here, within the
 * change: two that begin at once stay two.
 */
final class RecordNumbered implements Operation
{
    /** Number it is kept under; 0 until it is kept. */
    public int $number = 0;

    /**
     * @param Outcome      $outcome of the slot "prefix:7", or "prefix:" for a new one; its summary has a "name"
     * @param ?string      $noun    where a name is one thing's only: "volume"
     * @param list<string> $aside   of the summary, too long for the ledger
     */
    public function __construct(
        private readonly Results $results, private readonly Outcome $outcome, private readonly string $operation,
        private readonly string $title, private readonly ?string $noun = null, private readonly array $aside = [],
    ) {
    }

    public function name(): string
    {
        return $this->operation;
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return $this->outcome->settings + array_diff_key($this->outcome->summary, array_flip($this->aside));
    }

    public function apply(Project $project, Journal $journal): void
    {
        $o = $this->outcome;
        $prefix = substr($o->slot, 0, (int) strpos($o->slot, ':') + 1);
        $this->number = (int) substr($o->slot, \strlen($prefix));
        $isNew = 0 === $this->number;
        foreach ($this->results->current($project) as $slot => $result) {
            if (!str_starts_with($slot, $prefix)) {
                continue;
            }
            $isSame = ($result->summary['name'] ?? null) === $o->summary['name'];
            if (null !== $this->noun && $slot !== $o->slot && $isSame) {
                $words = \sprintf('there is a %s "%s" already; it stays as it is', $this->noun, $o->summary['name']);
                throw new UnusableInput('/name', $words);
            }
            $this->number = $isNew ? max($this->number, $result->number()) : $this->number;
        }
        $this->number += $isNew ? 1 : 0;
        $this->results->record($project, $journal, new Outcome(
            $prefix.$this->number, $o->kind, $o->label, $o->basis, $o->settings, $o->summary, $o->output,
        ));
    }
}
