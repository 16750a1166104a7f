<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\FollowsRename;
use App\Survey\ObservationRepository;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** Gives a point another name everywhere; onto an existing name it means that both are one mark. */
final class RenamePoint implements Operation
{
    /** @param iterable<FollowsRename> $followers */
    public function __construct(
        private readonly PointRepository $points,
        private readonly ObservationRepository $observations,
        private readonly iterable $followers,
        private readonly string $from,
        private readonly string $to,
    ) {
    }

    public function name(): string
    {
        return 'rename-point';
    }

    public function title(): string
    {
        return \sprintf('Renamed %s to %s', $this->from, $this->to);
    }

    public function detail(): array
    {
        return ['from' => $this->from, 'to' => $this->to];
    }

    public function apply(Project $project, Journal $journal): void
    {
        if ($this->from === $this->to) {
            throw new UnusableInput('/to', \sprintf('is %s already', $this->from));
        }
        $point = $this->points->named($project, $this->from);
        $observations = $this->observations->touching($project, $this->from);
        if (null === $point && [] === $observations) {
            throw new UnusableInput('/from', \sprintf('there is no point %s', $this->from));
        }
        foreach ($observations as $o) {
            $o->fromName = $this->renamed($o->fromName);
            $o->toName = $this->renamed($o->toName);
            $o->backName = null === $o->backName ? null : $this->renamed($o->backName);
            if ($o->fromName === $o->toName) {
                throw new UnusableInput('/to', \sprintf('%s and %s observe each other, so they are two marks', $this->from, $this->to));
            }
        }
        if (null !== $point) {
            if (null === $this->points->named($project, $this->to)) {
                $point->name = $this->to;
            } else {
                $this->points->remove($point);
            }
        }
        foreach ($this->followers as $follower) {
            $follower->renamed($project, $this->from, $this->to);
        }
    }

    private function renamed(string $name): string
    {
        return $name === $this->from ? $this->to : $name;
    }
}
