<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\Overlaps;

/** The baselines a project's occupations make. */
final class Pairs
{
    public function __construct(
        private readonly OccupationRepository $occupations,
        private readonly PointRepository $points,
        private readonly MarkPlace $places,
    ) {
    }

    /** @return list<Pair> */
    public function of(Project $project): array
    {
        $occupations = $this->occupations->of($project);
        $known = [];
        $list = [];
        foreach ($occupations as $o) {
            $place = $this->places->of($project, $o->marker);
            $known[$o->id()] = null === $place ? 0 : (Point::CONTROL === $this->points->named($project, $o->marker)?->role ? 2 : 1);
            $list[] = ['name' => $o->marker, 'from' => $o->from(), 'to' => $o->to(), 'place' => $place ?? $o->recorded()->place];
        }
        $pairs = [];
        foreach ((new Overlaps($list))->pairs as $p) {
            [$a, $b] = [$occupations[$p['a']], $occupations[$p['b']]];
            if ($a->moves && $b->moves) {
                continue; // a base stands
            }
            // The base is what is known best; of two alike the one that recorded longer.
            $rank = static fn (Occupation $o): array => [$o->moves ? 0 : 1, $known[$o->id()], $o->to() - $o->from(), -$o->id()];
            if ($rank($b) > $rank($a)) {
                [$a, $b] = [$b, $a];
            }
            $pairs[] = new Pair($a, $b, $p['from'], $p['to'], Pair::sessionOf($a, $b), $p['independent'], $p['length']);
        }

        return $pairs;
    }

    /**
     * @param list<int> $ids base first
     *
     * @throws UnusableInput when there is no such pair
     */
    public function chosen(Project $project, array $ids): Pair
    {
        [$first, $second] = $ids;
        foreach ($this->of($project) as $pair) {
            if ($pair->base->id() === $first && $pair->rover->id() === $second) {
                return $pair;
            }
            if ($pair->base->id() === $second && $pair->rover->id() === $first) {
                return new Pair($pair->rover, $pair->base, $pair->from, $pair->to, $pair->session, $pair->isIndependent, $pair->length);
            }
        }
        throw new UnusableInput('/pairs', 'these two occupations are not there any more, or have no two minutes in common');
    }
}
