<?php

declare(strict_types=1);

namespace App\HandOver\Kept;

use App\Ledger\EditedMeanwhile;
use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Ledger\Operation;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Makes a named thing of the stage, or changes what is said of it. */
final class Define implements Operation
{
    private ?Named $thing = null;

    /**
     * @param NamedRepository<covariant Named> $things
     * @param ?int                             $existing one that is changed
     * @param ?string                          $seen     version of it that was edited; null where the editor does not say
     */
    public function __construct(
        private readonly NamedRepository $things,
        private readonly LedgerEntryRepository $entries,
        private readonly string $called,
        private readonly Definition $definition,
        private readonly ?int $existing = null,
        private readonly ?string $seen = null,
    ) {
    }

    public function name(): string
    {
        return 'define-'.str_replace(' ', '-', strtolower($this->noun()));
    }

    public function title(): string
    {
        return \sprintf('%s %s %s', null === $this->existing ? 'Defined' : 'Changed', $this->noun(), $this->called);
    }

    public function detail(): array
    {
        return $this->definition->toArray();
    }

    public function apply(Project $project, Journal $journal): void
    {
        $same = $this->things->named($project, $this->called);
        if (null !== $same && $same->id() !== $this->existing) {
            throw new UnusableInput('/name', \sprintf('there is a %s "%s" already', $this->noun(), $this->called));
        }
        if (null === $this->existing) {
            $class = $this->things->kind();
            $this->thing = new $class($project, $this->called, $this->definition);
            $this->things->add($this->thing);

            return;
        }
        $thing = $this->things->in($project, $this->existing)
            ?? throw new UnusableInput('', \sprintf('the %s is not there any more', $this->noun()));
        if (null !== $this->seen && (string) $thing->version() !== $this->seen) {
            $entry = $thing->version() > 0 ? $this->entries->numbered($project, $thing->version()) : null;
            $theirs = ['name' => $thing->name()] + $thing->definition()->toArray();
            throw new EditedMeanwhile(ucfirst($this->noun()).' '.$thing->name(), $entry, $theirs, (string) $thing->version());
        }
        $thing->define($this->called, $this->definition);
        $this->thing = $thing;
    }

    /** Database id of it. */
    public function id(): int
    {
        return (int) $this->thing?->id();
    }

    private function noun(): string
    {
        return $this->things->kind()::noun();
    }
}
