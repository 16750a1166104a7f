<?php

declare(strict_types=1);

namespace App\Review;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Review\Request\RemarkRequest;

/** Keeps a remark. */
final class Say implements Operation
{
    /** @param string $what in words: "surface Pit" */
    public function __construct(
        private readonly RemarkRepository $remarks, private readonly RemarkRequest $said, private readonly string $what,
        private readonly string $output,
    ) {
    }

    public function name(): string
    {
        return $this->said->checks ? 'check' : 'remark';
    }

    public function title(): string
    {
        return match (true) {
            $this->said->checks => 'Checked ', 0 !== $this->said->answers => 'Answered a remark on ', default => 'Remarked on ',
        }.$this->what;
    }

    public function detail(): array
    {
        return ['about' => $this->said->about, 'text' => $this->said->text];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->remarks->add(new Remark(
            $project, $this->said->about, trim($this->said->text), $this->said->answers, $this->said->checks,
            $this->said->checks ? $this->output : '', $journal->authorName, $journal->at,
        ));
    }
}
