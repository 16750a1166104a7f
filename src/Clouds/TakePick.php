<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Clouds\Request\PickRequest;
use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;

/** A place picked in a cloud becomes a point of the project. */
final class TakePick implements Operation
{
    public const SOURCE = 'cloud';

    public function __construct(
        private readonly PointRepository $points, private readonly string $cloud, private readonly PickRequest $pick,
    ) {
    }

    public function name(): string
    {
        return 'pick-point';
    }

    public function title(): string
    {
        return \sprintf('Picked %s in the cloud %s', $this->pick->name, $this->cloud);
    }

    public function detail(): array
    {
        return ['cloud' => $this->cloud] + (array) $this->pick;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $p = $this->pick;
        if ([] !== $this->points->allNamed($project, [$p->name])) {
            throw new UnusableInput('/name', \sprintf('there is a point %s already', $p->name));
        }
        $point = new Point($project, $p->name, Point::SURVEYED, self::SOURCE, $project->isPlane() ? Point::LOCALLY : Point::GLOBALLY);
        $point->code = trim($p->code);
        [$point->e, $point->n, $point->h] = [round($p->e, 5), round($p->n, 5), round($p->h, 5)];
        $this->points->add($point);
    }
}
