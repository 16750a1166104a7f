<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Takes a run out of the levelling book; undo brings it back. */
final class RemoveRun implements Operation
{
    private string $run = '';

    public function __construct(private readonly LevelRunRepository $runs, private readonly int $id)
    {
    }

    public function name(): string
    {
        return 'remove-level-run';
    }

    public function title(): string
    {
        return 'Removed the level run '.$this->run;
    }

    public function detail(): array
    {
        return ['run' => $this->run];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $run = $this->runs->in($project, $this->id) ?? throw new UnusableInput('', 'this run is not there any more');
        $this->run = $run->name;
        $this->runs->remove($run);
    }
}
