<?php

declare(strict_types=1);

namespace App\Checks;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;

/** The bands a comparison is reported in, from now on. */
final class KeepBands implements Operation
{
    /**
     * @param list<float>  $limits
     * @param list<string> $colours
     */
    public function __construct(
        private readonly BandsRepository $bands, private readonly int $number, private readonly string $of, private readonly array $limits,
        private readonly array $colours,
    ) {
    }

    public function name(): string
    {
        return 'keep-bands';
    }

    public function title(): string
    {
        $mm = array_map(static fn (float $l): string => \sprintf('%+g', round(1000.0 * $l, 4)), $this->limits);

        return \sprintf('Bands of %s: %s mm', $this->of, implode(', ', $mm));
    }

    public function detail(): array
    {
        return ['limits' => $this->limits, 'colours' => $this->colours];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $bands = $this->bands->of($project, $this->number);
        $bands->keep($this->limits, $this->colours);
        $this->bands->add($bands);
    }
}
