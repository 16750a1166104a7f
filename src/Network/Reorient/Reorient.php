<?php

declare(strict_types=1);

namespace App\Network\Reorient;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\Given;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** Control gets other values, and every point that hangs on it moves with it: one entry, one undo. */
final class Reorient implements Operation
{
    private int $moved = 0;

    /**
     * @param list<array{point: string, e: ?float, n: ?float, h: ?float}> $control
     * @param array<string, array{float, float, float}>                   $places new ones
     */
    public function __construct(
        private readonly PointRepository $points,
        private readonly array $control,
        private readonly array $places,
        private readonly string $reason,
    ) {
    }

    public function name(): string
    {
        return 're-orient';
    }

    public function title(): string
    {
        return \sprintf(
            'Re-oriented on %s: %d points moved%s', implode(', ', \array_slice(array_column($this->control, 'point'), 0, 4)), $this->moved,
            '' === $this->reason ? '' : ', '.$this->reason,
        );
    }

    public function detail(): array
    {
        return ['control' => $this->control, 'moved' => $this->moved, 'reason' => $this->reason];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $marks = [];
        foreach ($this->control as $i => $new) {
            $p = $this->points->named($project, $new['point'])
                ?? throw new UnusableInput("/control/$i/point", \sprintf('there is no point %s', $new['point']));
            if (Point::CONTROL !== $p->role) {
                throw new UnusableInput("/control/$i/point", \sprintf('%s is not control; make it control first', $p->name));
            }
            $p->give(new Given(
                $new['e'] ?? $p->givenE ?? $p->e, $new['n'] ?? $p->givenN ?? $p->n, $new['h'] ?? $p->givenH ?? $p->h,
                $p->held, $p->sdE, $p->sdN, $p->sdH,
            ));
            $marks[$p->name] = true;
        }
        foreach ($this->points->allNamed($project, array_map(strval(...), array_keys($this->places))) as $name => $p) {
            if (null === $p->e) {
                continue;
            }
            [$e, $n, $h] = array_map(static fn (float $v): float => round($v, 5), $this->places[$name]);
            if (hypot($e - $p->e, $n - (float) $p->n) > 0.00005 || abs($h - (float) $p->h) > 0.00005) {
                $p->moveTo($e, $n, $h);
                ++$this->moved;
            }
        }
    }
}
