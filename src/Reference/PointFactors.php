<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Ground\GridPoint;

/** Convergence, factors and geoid height of points. Null where the projection or the geoid has no value. */
final class PointFactors
{
    public function __construct(private readonly PointRepository $points, private readonly ProjectReference $references)
    {
    }

    /**
     * @param string $name of one point; empty for all, control and adjusted ones first
     *
     * @return list<array{
     *     name: string, lat: ?float, lon: ?float, convergence: ?float, scale: ?float, combined: ?float, n: ?float,
     * }> degrees and metres
     */
    public function of(Project $project, string $name): array
    {
        $system = $this->references->of($project);
        if (null === $system) {
            return [];
        }
        $geoid = $this->references->geoidOf($project);
        $first = $rest = [];
        foreach ($this->points->onGrid($project) as $p) {
            if ('' !== $name && $p->name !== $name) {
                continue;
            }
            $row = self::row($system, $geoid, $p);
            Point::SURVEYED === $p->role ? $rest[] = $row : $first[] = $row;
        }

        return [...$first, ...$rest];
    }

    /** @return array{name: string, lat: ?float, lon: ?float, convergence: ?float, scale: ?float, combined: ?float, n: ?float} */
    private static function row(HorizontalSystem $system, ?GeoidGrid $geoid, PointRow $p): array
    {
        $n = $at = null;
        try {
            [$lat, $lon] = $system->toGeographic((float) $p->e, (float) $p->n);
            $n = $geoid?->height(rad2deg($lat), rad2deg($lon));
            $at = GridPoint::at($system, (float) $p->e, (float) $p->n, ($p->h ?? 0.0) + ($n ?? 0.0));
        } catch (\DomainException) {
            // The row says so by its gaps.
        }

        return [
            'name' => $p->name, 'lat' => $at?->latDegrees, 'lon' => $at?->lonDegrees,
            'convergence' => $at?->convergence, 'scale' => $at?->scale,
            'combined' => $at?->combined(), 'n' => $n,
        ];
    }
}
