<?php

declare(strict_types=1);

namespace App\Clouds\Group;

use App\Clouds\Request\RaysPointRequest;
use App\Clouds\View\RaysView;
use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Exchange\Delimited\Measured;
use Mensura\Fault\UnusableInput;

/** A place that rays of images meet at becomes a point of the project, with what it is known to. */
final class TakeRays implements Operation
{
    public const SOURCE = 'images';

    public function __construct(
        private readonly PointRepository $points, private readonly string $group, private readonly RaysPointRequest $pick,
        private readonly RaysView $rays,
    ) {
    }

    public function name(): string
    {
        return 'pick-in-images';
    }

    public function title(): string
    {
        return \sprintf('Picked %s in %d images of %s', $this->pick->name, \count($this->rays->rays), $this->group);
    }

    public function detail(): array
    {
        return ['group' => $this->group, 'sd' => $this->rays->sd] + (array) $this->pick;
    }

    public function apply(Project $project, Journal $journal): void
    {
        if (null === $this->rays->place || null === $this->rays->sd) {
            throw new UnusableInput('/rays', 'do not meet; look at the residuals, and take the mistaken one away');
        }
        if ([] !== $this->points->allNamed($project, [$this->pick->name])) {
            throw new UnusableInput('/name', \sprintf('there is a point %s already', $this->pick->name));
        }
        $known = $project->isPlane() ? Point::LOCALLY : Point::GLOBALLY;
        $point = new Point($project, $this->pick->name, Point::SURVEYED, self::SOURCE, $known);
        $point->code = trim($this->pick->code);
        [$point->e, $point->n, $point->h] = array_map(static fn (float $v): float => round($v, 5), $this->rays->place);
        [$e, $n, $up] = $this->rays->sd;
        $measured = new Measured(
            method: 'images', positions: \count($this->rays->rays), sdPlan: round(hypot($e, $n), 4), sdUp: round($up, 4),
        );
        $point->measured = json_encode($measured->toArray(), \JSON_THROW_ON_ERROR);
        $this->points->add($point);
    }
}
