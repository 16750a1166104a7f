<?php

declare(strict_types=1);

namespace App\HandOver\Kept;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Takes a named thing of the stage away; what was written of it stays in the archive. */
final class Remove implements Operation
{
    private string $called = '';

    /** @param NamedRepository<covariant Named> $things */
    public function __construct(private readonly NamedRepository $things, private readonly int $id)
    {
    }

    public function name(): string
    {
        return 'remove-'.str_replace(' ', '-', strtolower($this->things->kind()::noun()));
    }

    public function title(): string
    {
        return \sprintf('Removed %s %s', $this->things->kind()::noun(), $this->called);
    }

    public function detail(): array
    {
        return ['name' => $this->called];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $thing = $this->things->in($project, $this->id)
            ?? throw new UnusableInput('', \sprintf('the %s is not there any more', $this->things->kind()::noun()));
        $this->called = $thing->name();
        $this->things->remove($thing);
    }
}
