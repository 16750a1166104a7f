<?php

declare(strict_types=1);

namespace App\Checks\CheckPoint;

use App\Project\Project;
use App\Survey\PointRepository;
use App\Survey\PointRow;

/**
 * What was measured of check points: their own adjusted or surveyed place, where the project has one, else the nearest point
 * within a distance in plan that is none of them.
 */
final class MeasuredOfCheck
{
    /** @var array<string, list<PointRow>> by square as wide as the distance */
    private array $near = [];

    public function __construct(PointRepository $points, Project $project, private readonly float $within)
    {
        foreach ($points->onGrid($project) as $p) {
            if (!$p->isCheck()) {
                $this->near[$this->square((float) $p->e, (float) $p->n)][] = $p;
            }
        }
    }

    /** @return ?array{string, float, float, ?float} name, easting, northing, height; null where nothing was measured */
    public function of(PointRow $check): ?array
    {
        if ($check->isPlaced() && self::isMeasured($check)) {
            return [$check->name, (float) $check->e, (float) $check->n, $check->h];
        }
        if (null === $check->givenE || null === $check->givenN) {
            return null;
        }
        $best = null;
        $least = $this->within;
        foreach ([-1, 0, 1] as $column) {
            foreach ([-1, 0, 1] as $row) {
                $square = $this->square($check->givenE + $column * $this->within, $check->givenN + $row * $this->within);
                foreach ($this->near[$square] ?? [] as $p) {
                    $d = hypot((float) $p->e - $check->givenE, (float) $p->n - $check->givenN);
                    if ($d <= $least) {
                        [$best, $least] = [$p, $d];
                    }
                }
            }
        }

        return null === $best ? null : [$best->name, (float) $best->e, (float) $best->n, $best->h];
    }

    /** Its place is what is given until something was measured of it. */
    private static function isMeasured(PointRow $p): bool
    {
        return 'adjusted' === $p->source || $p->e !== $p->givenE || $p->n !== $p->givenN || $p->h !== $p->givenH;
    }

    private function square(float $e, float $n): string
    {
        return (int) floor($e / $this->within).' '.(int) floor($n / $this->within);
    }
}
