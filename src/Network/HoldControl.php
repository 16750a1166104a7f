<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\Given;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** Holds marks at the coordinates that are given for them, so that they fix the network. */
final readonly class HoldControl implements Operation
{
    /** @param list<string> $names */
    public function __construct(private PointRepository $points, private array $names)
    {
    }

    public function name(): string
    {
        return 'hold-control';
    }

    public function title(): string
    {
        return \count($this->names) > 4
            ? \sprintf('Held %d control marks', \count($this->names))
            : 'Held '.implode(', ', $this->names);
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
            $held = (null !== $p->givenE && null !== $p->givenN ? 'en' : '').(null !== $p->givenH ? 'h' : '');
            if ('' === $held) {
                throw new UnusableInput("/points/$i", \sprintf('%s has no given coordinates to be held at', $name));
            }
            $p->give(new Given($p->givenE, $p->givenN, $p->givenH, $held));
        }
    }
}
