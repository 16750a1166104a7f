<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Project\Project;
use App\Survey\Point;
use App\Survey\PointRepository;

/** Control and check points with given easting, northing and height. Metres. */
final class KnownPoints
{
    public function __construct(private readonly PointRepository $points)
    {
    }

    /** @return array<string, array{name: string, role: string, e: float, n: float, h: float}> by name */
    public function of(Project $project): array
    {
        $points = [];
        foreach ($this->points->marks($project) as $p) {
            $isGiven = \in_array($p->role, [Point::CONTROL, Point::CHECK], true);
            if ($isGiven && null !== $p->givenE && null !== $p->givenN && null !== $p->givenH) {
                $points[$p->name] = ['name' => $p->name, 'role' => $p->role, 'e' => $p->givenE, 'n' => $p->givenN, 'h' => $p->givenH];
            }
        }

        return $points;
    }
}
