<?php

declare(strict_types=1);

namespace App\Clouds\View;

use App\Design\View\CloudFileView;

/** The passes of a project. */
final readonly class PassesView
{
    /**
     * @param list<PassView>           $passes
     * @param list<TrajectoryFileView> $trajectories that came in
     * @param list<CloudFileView>      $clouds       scans among them
     * @param list<array{name: string, role: string, e: float, n: float, h: float}> $points control and check points
     */
    public function __construct(public array $passes, public array $trajectories, public array $clouds, public array $points)
    {
    }
}
