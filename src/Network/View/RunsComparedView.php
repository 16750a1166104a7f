<?php

declare(strict_types=1);

namespace App\Network\View;

/** Two runs of the adjustment side by side: what moved and which verdicts changed. */
final readonly class RunsComparedView
{
    /**
     * @param list<ShiftView>          $shifts  later less earlier, largest first
     * @param list<ChangedVerdictView> $changed
     */
    public function __construct(
        public int $earlier,
        public int $later,
        public ?float $earlierFactor,
        public ?float $laterFactor,
        public array $shifts,
        public array $changed,
    ) {
    }
}
