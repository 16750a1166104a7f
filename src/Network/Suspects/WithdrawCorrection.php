<?php

declare(strict_types=1);

namespace App\Network\Suspects;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\CorrectionRepository;
use Mensura\Fault\UnusableInput;

/** Takes a correction back: the observations count as they were recorded again. */
final class WithdrawCorrection implements Operation
{
    private string $words = '';

    public function __construct(private readonly CorrectionRepository $corrections, private readonly int $id)
    {
    }

    public function name(): string
    {
        return 'withdraw-correction';
    }

    public function title(): string
    {
        return 'Withdrew the correction of '.$this->words;
    }

    public function detail(): array
    {
        return ['correction' => $this->id];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $correction = $this->corrections->in($project, $this->id)
            ?? throw new UnusableInput('', 'this correction is not there any more');
        $this->words = $correction->words;
        $this->corrections->remove($correction);
    }
}
