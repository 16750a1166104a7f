<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/**
 * Picks, for every position, the best candidate whose area of use holds it. A better one that lacks its grid is an
 * error unless falling back is allowed; so is a position that no candidate's area holds.
 */
final class ChoiceStep implements Step
{
    /** @var array<int, list<Step>> steps by candidate, made when first used */
    private array $steps = [];

    /** @var array<int, array{float, float, float, float}|null> south, north, west, east in radians; null for everywhere */
    private array $bounds = [];

    /** @var array<int, float> */
    private array $accuracies = [];

    /** @var array<int, bool> */
    private array $usable = [];

    /** @var array<int, int> rows by candidate */
    public array $used = [];

    /** @var list<Candidate> */
    public array $candidates = [];

    /**
     * @param list<Candidate>                  $candidates best first
     * @param ?\Closure(): list<Candidate>     $more       further ones, asked for when no area holds a position
     */
    public function __construct(
        array $candidates,
        private readonly bool $fallBack,
        private readonly string $between,
        private ?\Closure $more = null,
    ) {
        $this->add($candidates);
    }

    /** @param list<Candidate> $candidates */
    private function add(array $candidates): void
    {
        foreach ($candidates as $candidate) {
            $i = \count($this->candidates);
            $this->candidates[] = $candidate;
            $area = $candidate->area;
            $this->bounds[$i] = null === $area || $area->width() >= 360.0 && $area->south <= -90.0 && $area->north >= 90.0 ? null : [
                deg2rad($area->south), deg2rad($area->north), deg2rad($area->west), deg2rad($area->east),
            ];
            $this->used[$i] = 0;
            $this->accuracies[$i] = $candidate->accuracy ?? \INF;
            $this->usable[$i] = $candidate->isUsable();
        }
    }

    public function apply(float $lat, float $lon, float $h): array
    {
        $i = $this->pick($lat, $lon);
        ++$this->used[$i];
        foreach ($this->steps[$i] ??= $this->candidates[$i]->steps() as $step) {
            [$lat, $lon, $h] = $step->apply($lat, $lon, $h);
        }

        return [$lat, $lon, $h];
    }

    /** The candidate that serves a position. */
    public function pick(float $lat, float $lon): int
    {
        if ($lon > \M_PI) {
            $lon -= 2.0 * \M_PI;
        } elseif ($lon < -\M_PI) {
            $lon += 2.0 * \M_PI;
        }
        $lacking = null;
        $best = null;
        foreach ($this->bounds as $i => $bound) {
            if (null !== $bound) {
                [$south, $north, $west, $east] = $bound;
                if ($lat < $south || $lat > $north || ($west <= $east ? $lon < $west || $lon > $east : $lon < $west && $lon > $east)) {
                    continue;
                }
            }
            if (null !== $best
                && ($this->candidates[$best]->named
                    || $this->accuracies[$i] > $this->accuracies[$best]
                    || $this->candidates[$i]->isOffshore())
            ) {
                break;
            }
            if (!$this->usable[$i]) {
                $lacking ??= $i;
                continue;
            }
            if (null !== $lacking && !$this->fallBack) {
                throw MissingGrid::of($this->candidates[$lacking], $this->candidates[$best ?? $i]);
            }
            // Of equals, one made for a place within the other's area is the better.
            if (null === $best
                || null !== $bound
                && (null === $this->bounds[$best]
                    || $bound[0] > $this->bounds[$best][0] && $bound[1] < $this->bounds[$best][1]
                    && $bound[2] > $this->bounds[$best][2] && $bound[3] < $this->bounds[$best][3])
            ) {
                $best = $i;
            }
        }
        if (null !== $best) {
            return $best;
        }
        if (null !== $this->more) {
            $more = $this->more;
            $this->more = null;
            $this->add($more());

            return $this->pick($lat, $lon);
        }
        if (null !== $lacking) {
            throw MissingGrid::of($this->candidates[$lacking], null);
        }

        throw new NoWay(\sprintf(
            'latitude %.5f, longitude %.5f degrees lies outside the area of use of every transformation %s',
            rad2deg($lat),
            rad2deg($lon),
            $this->between,
        ));
    }
}
