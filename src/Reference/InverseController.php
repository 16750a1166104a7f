<?php

declare(strict_types=1);

namespace App\Reference;

use App\Api\Id;
use App\Project\Project;
use App\Project\Reads;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;

/** Distances, azimuths and factors between any two points of the project. */
#[Route(Id::PROJECT.'/reference')]
final class InverseController
{
    public function __construct(private readonly PointRepository $points)
    {
    }

    #[Route('/inverse', methods: 'GET')]
    public function inverse(#[Reads] Project $project, Request $request, InverseReport $report): JsonResponse
    {
        $from = $this->point($project, (string) $request->query->get('from'), '/from');

        return new JsonResponse($report->between($project, $from, $this->point($project, (string) $request->query->get('to'), '/to')));
    }

    /** Convergence, factors and N of every point, for the table; of one when it is named. */
    #[Route('/factors', methods: 'GET')]
    public function factors(#[Reads] Project $project, Request $request, PointFactors $factors): JsonResponse
    {
        return new JsonResponse($factors->of($project, (string) $request->query->get('point')));
    }

    private function point(Project $project, string $name, string $pointer): Point
    {
        $p = $this->points->named($project, $name);
        if (null === $p || null === $p->e || null === $p->n) {
            throw new UnusableInput($pointer, \sprintf('there is no point "%s" with coordinates', $name));
        }
        if (Point::LOCALLY === $p->known && !$project->isPlane()) {
            throw new UnusableInput(
                $pointer,
                \sprintf('%s is known only locally; bring it onto the grid with a localization first', $name),
            );
        }

        return $p;
    }
}
