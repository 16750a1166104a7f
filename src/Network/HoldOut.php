<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** Makes points check points: known, compared with, and no part of an adjustment. */
final readonly class HoldOut implements Operation
{
    /** @param list<string> $names */
    public function __construct(private PointRepository $points, private array $names)
    {
    }

    public function name(): string
    {
        return 'hold-out';
    }

    public function title(): string
    {
        return \count($this->names) > 4
            ? \sprintf('Made %d points check points', \count($this->names))
            : \sprintf('Made %s %s', implode(', ', $this->names), 1 === \count($this->names) ? 'a check point' : 'check points');
    }

    public function detail(): array
    {
        return ['points' => $this->names];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $points = $this->points->allNamed($project, $this->names);
        foreach ($this->names as $i => $name) {
            $p = $points[$name] ?? throw new UnusableInput("/points/$i", \sprintf('there is no point %s', $name));
            if (!$p->holdOut()) {
                throw new UnusableInput("/points/$i", \sprintf('nothing is given about %s that could be compared with', $name));
            }
        }
    }
}
