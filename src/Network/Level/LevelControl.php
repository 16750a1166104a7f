<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\Given;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Levelling\LevelledPoint;

/** The heights of the levelling book become control: held, beside whatever is given in plan. */
final class LevelControl implements Operation
{
    private int $count = 0;

    public function __construct(private readonly LevelDesk $desk, private readonly PointRepository $points)
    {
    }

    public function name(): string
    {
        return 'level-control';
    }

    public function title(): string
    {
        return \sprintf('Levelled heights of %d points became control', $this->count);
    }

    public function detail(): array
    {
        return ['points' => $this->count];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $book = $this->desk->work($project);
        foreach ($book->points as $levelled) {
            if (LevelledPoint::BENCHMARK === $levelled->role) {
                continue;
            }
            $p = $this->points->named($project, $levelled->id);
            if (null === $p) {
                continue; // a turning point is no mark of the project
            }
            $held = str_contains($p->held, 'h') ? $p->held : $p->held.'h';
            $p->give(new Given($p->givenE ?? $p->e, $p->givenN ?? $p->n, $levelled->h, $held, $p->sdE, $p->sdN));
            ++$this->count;
        }
        if (0 === $this->count) {
            throw new UnusableInput(
                '',
                'no levelled point is a point of the project; hand the differences to the network instead, or name points alike',
            );
        }
    }
}
