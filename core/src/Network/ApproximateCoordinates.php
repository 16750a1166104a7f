<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Observation\ObservationKind;

/**
 * Approximate coordinates for stations that have none, carried outwards from those that do.
 *
 * In turn, until nothing new is found: vectors, polar points from oriented setups, free stations from two or more
 * sighted distances, intersections, resections and distances ({@see Loci}), local blocks, also of unknown scale; heights
 * by levelled differences and zenith angles. Good to the size of a wild guess (curvature and grid scale are ignored);
 * the adjustment iterates from there.
 */
final class ApproximateCoordinates
{
    /** @var list<?float> */
    private array $e = [];

    /** @var list<?float> */
    private array $n = [];

    /** @var list<?float> */
    private array $h = [];

    /** @var array<string, array{at: int, rays: list<array{int, float}>, azimuth: bool}> rays: target, direction in radians */
    private array $setups = [];

    /** @var array<int, array<int, float>> bearings by ends */
    private array $azimuths = [];

    /** @var array<int, array<int, float>> horizontal distances by ends */
    private array $distances = [];

    /** @var list<array{int, int, float}> from, to, height difference */
    private array $heights = [];

    /** @var list<array{int, int, float, float}> from, to, zenith in radians, hi - ht */
    private array $zeniths = [];

    /** While a block is computed in a frame of its own, azimuths mean nothing. */
    private bool $blockHasNoNorth = false;

    private function __construct(private readonly NetworkDefinition $network)
    {
    }

    /**
     * @return array{list<?float>, list<?float>, list<?float>} e, n, h by station; null where none could be found
     */
    public static function of(NetworkDefinition $network): array
    {
        $self = new self($network);
        $missing = false;
        foreach ($network->stations as $station) {
            $self->e[] = null === $station->n ? null : $station->e;
            $self->n[] = null === $station->e ? null : $station->n;
            $self->h[] = $station->h;
            $missing = $missing || null === $station->e || null === $station->n || null === $station->h;
        }
        if ($missing) {
            $self->collect();
            do {
                $found = $self->vectors() + $self->polar() + $self->heightsKnown();
                $found = $found > 0 ? $found : $self->plan();
                $found = $found > 0 ? $found : $self->localBlocks();
                $found = $found > 0 ? $found : $self->blocksOfUnknownScale();
            } while ($found > 0);
        }

        return [$self->e, $self->n, $self->h];
    }

    private function plan(): int
    {
        $found = $this->freeStations();
        $found = $found > 0 ? $found : $this->intersections();

        return $found > 0 ? $found : $this->loci();
    }

    /**
     * Setups that hang together but see too little that is known: computed about one of them in a frame of their own,
     * then turned and shifted onto the two or more known stations among them.
     */
    private function localBlocks(): int
    {
        $found = 0;
        $visited = [];
        foreach ($this->setups as $setup) {
            $at = $setup['at'];
            foreach ($setup['rays'] as [$to, $direction]) {
                if (!$setup['azimuth'] && isset($this->distances[$at][$to]) && !isset($visited[$at])) {
                    $found += $this->block($at, $to, $direction, $this->distances[$at][$to], false, $visited);
                    break;
                }
            }
        }

        return $found;
    }

    /** The same where directions and angles are all there is: two setups that see each other, one unit apart. */
    private function blocksOfUnknownScale(): int
    {
        $distances = $this->distances;
        $this->distances = [];
        $setupAt = array_column($this->setups, 'at', 'at');
        $found = 0;
        $visited = [];
        foreach ($this->setups as $setup) {
            $at = $setup['at'];
            foreach ($setup['rays'] as [$to, $direction]) {
                if (!$setup['azimuth'] && isset($setupAt[$to]) && !isset($visited[$at], $visited[$to])) {
                    $found += $this->block($at, $to, $direction, 1.0, true, $visited);
                }
            }
        }
        $this->distances = $distances;

        return $found;
    }

    /** @param array<int, true> $visited stations that came into a block */
    private function block(int $at, int $to, float $direction, float $distance, bool $scaled, array &$visited): int
    {
        if ($this->known($at) && $this->known($to)) {
            return 0;
        }
        $known = [$this->e, $this->n];
        $this->e = $this->n = array_fill(0, \count($this->e), null);
        $this->blockHasNoNorth = true;
        $this->place($at, 0.0, 0.0);
        $this->place($to, $distance * sin($direction), $distance * cos($direction));
        while ($this->polar() > 0 || $this->plan() > 0) {
            continue;
        }
        $this->blockHasNoNorth = false;
        $local = [$this->e, $this->n];
        [$this->e, $this->n] = $known;
        $pairs = [];
        foreach ($local[0] as $s => $x) {
            if (null !== $x) {
                $visited[$s] = true;
            }
            if (null !== $x && $this->known($s)) {
                $pairs[] = [$x, (float) $local[1][$s], (float) $this->e[$s], (float) $this->n[$s]];
            }
        }
        $fit = self::turnAndShift($pairs, $scaled);
        if (null === $fit) {
            return 0;
        }
        [$cos, $sin, $e0, $n0] = $fit;
        $found = 0;
        foreach ($local[0] as $s => $x) {
            if (null !== $x && !$this->known($s)) {
                $y = (float) $local[1][$s];
                $this->place($s, $e0 + $x * $cos - $y * $sin, $n0 + $x * $sin + $y * $cos);
                ++$found;
            }
        }

        return $found;
    }

    /**
     * Least-squares rotation and translation, without scale unless it is asked for.
     *
     * @param list<array{float, float, float, float}> $pairs local x, y, then e, n
     *
     * @return ?array{float, float, float, float} scale times cosine and sine, e and n of the local origin; null with fewer than two places
     */
    private static function turnAndShift(array $pairs, bool $scaled = false): ?array
    {
        $count = \count($pairs);
        if ($count < 2) {
            return null;
        }
        $mean = [0.0, 0.0, 0.0, 0.0];
        foreach ($pairs as $pair) {
            for ($k = 0; $k < 4; ++$k) {
                $mean[$k] += $pair[$k] / $count;
            }
        }
        $dot = $cross = $size = 0.0;
        foreach ($pairs as [$x, $y, $e, $n]) {
            $size += ($x - $mean[0]) ** 2 + ($y - $mean[1]) ** 2;
            $dot += ($x - $mean[0]) * ($e - $mean[2]) + ($y - $mean[1]) * ($n - $mean[3]);
            $cross += ($x - $mean[0]) * ($n - $mean[3]) - ($y - $mean[1]) * ($e - $mean[2]);
        }
        $length = hypot($dot, $cross);
        if ($length < 1e-6) {
            return null;
        }
        $q = $scaled ? 1.0 / $size : 1.0 / $length;
        $c = $q * $dot;
        $s = $q * $cross;

        return [$c, $s, $mean[2] - $mean[0] * $c + $mean[1] * $s, $mean[3] - $mean[0] * $s - $mean[1] * $c];
    }

    private function collect(): void
    {
        $index = $this->network->stationIndex;
        $convergence = $this->convergence();
        /** @var array<string, array{?float, ?float}> $slopes slope distance and zenith of one sight */
        $slopes = [];
        foreach ($this->network->observations as $i => $o) {
            if (!$o->used[0] || null === $o->value) {
                continue;
            }
            $from = $index[$o->from];
            $to = $index[$o->to];
            switch ($o->kind) {
                case ObservationKind::Direction:
                    $key = $from.'/'.$o->set;
                    $this->setups[$key] ??= ['at' => $from, 'rays' => [], 'azimuth' => false];
                    $this->setups[$key]['rays'][] = [$to, deg2rad($o->value)];
                    break;
                case ObservationKind::Angle:
                    $this->setups["angle $i"] = [
                        'at' => $from,
                        'rays' => [[$index[(string) $o->back], 0.0], [$to, deg2rad($o->value)]],
                        'azimuth' => false,
                    ];
                    break;
                case ObservationKind::Azimuth:
                    $this->azimuths[$from][$to] = deg2rad($o->value) - $convergence;
                    $this->setups["azimuth $i"] = ['at' => $from, 'rays' => [[$to, $this->azimuths[$from][$to]]], 'azimuth' => true];
                    break;
                case ObservationKind::HorizontalDistance:
                    $this->distances[$from][$to] = $this->distances[$to][$from] = $o->value;
                    break;
                case ObservationKind::SlopeDistance:
                    $slopes["$from-$to"][0] = $o->value;
                    break;
                case ObservationKind::Zenith:
                    $z = deg2rad($o->value > 180.0 ? 360.0 - $o->value : $o->value);
                    $slopes["$from-$to"][1] = $z;
                    $this->zeniths[] = [$from, $to, $z, $o->instrumentHeight - $o->targetHeight];
                    break;
                case ObservationKind::HeightDifference:
                    $this->heights[] = [$from, $to, $o->value];
                    break;
                case ObservationKind::Vector:
                    break;
            }
        }
        foreach ($slopes as $key => $sight) {
            if (isset($sight[0])) {
                [$from, $to] = array_map(intval(...), explode('-', $key));
                $this->distances[$from][$to] ??= $this->distances[$to][$from] = $sight[0] * (isset($sight[1]) ? sin($sight[1]) : 1.0);
            }
        }
    }

    /** Azimuth of grid north at the first known station, radians. */
    private function convergence(): float
    {
        foreach ($this->e as $s => $e) {
            if (null !== $e) {
                $j = $this->network->frame->geometry($e, (float) $this->n[$s], $this->h[$s] ?? 0.0)['jacobian'];

                return atan2($j[1], $j[4]);
            }
        }

        return 0.0;
    }

    private function known(int $s): bool
    {
        return null !== $this->e[$s];
    }

    private function place(int $s, float $e, float $n): void
    {
        $this->e[$s] = $e;
        $this->n[$s] = $n;
    }

    private function vectors(): int
    {
        $found = 0;
        $index = $this->network->stationIndex;
        foreach ($this->network->observations as $o) {
            if (ObservationKind::Vector !== $o->kind || null === $o->components || [true, true, true] !== $o->used) {
                continue;
            }
            $from = $index[$o->from];
            $to = $index[$o->to];
            foreach ([[$from, $to, 1.0], [$to, $from, -1.0]] as [$a, $b, $sign]) {
                if ($this->known($a) && null !== $this->h[$a] && (!$this->known($b) || null === $this->h[$b])) {
                    $p = $this->network->frame->geometry((float) $this->e[$a], (float) $this->n[$a], $this->h[$a])['position'];
                    [$e, $n, $h] = $this->network->frame->coordinates(
                        $p[0] + $sign * $o->components[0],
                        $p[1] + $sign * $o->components[1],
                        $p[2] + $sign * $o->components[2],
                    );
                    if (!$this->known($b)) {
                        $this->place($b, $e, $n);
                    }
                    $this->h[$b] ??= $h;
                    ++$found;
                }
            }
        }

        return $found;
    }

    /**
     * @param array{at: int, rays: list<array{int, float}>, azimuth: bool} $setup
     */
    private function orientation(array $setup): ?float
    {
        if (!$this->known($setup['at'])) {
            return null;
        }
        if ($setup['azimuth']) {
            return $this->blockHasNoNorth ? null : 0.0;
        }
        $c = $s = 0.0;
        $any = false;
        foreach ($setup['rays'] as [$to, $direction]) {
            if ($this->known($to)) {
                $turn = $this->bearing($setup['at'], $to) - $direction;
                $c += cos($turn);
                $s += sin($turn);
                $any = true;
            }
        }

        return $any ? atan2($s, $c) : $this->orientationByAzimuth($setup);
    }

    /**
     * @param array{at: int, rays: list<array{int, float}>, azimuth: bool} $setup
     */
    private function orientationByAzimuth(array $setup): ?float
    {
        foreach ($this->blockHasNoNorth ? [] : $setup['rays'] as [$to, $direction]) {
            if (isset($this->azimuths[$setup['at']][$to])) {
                return $setup['azimuth'] ? 0.0 : $this->azimuths[$setup['at']][$to] - $direction;
            }
        }

        return null;
    }

    private function bearing(int $from, int $to): float
    {
        return atan2((float) $this->e[$to] - (float) $this->e[$from], (float) $this->n[$to] - (float) $this->n[$from]);
    }

    private function polar(): int
    {
        $found = 0;
        foreach ($this->setups as $setup) {
            $at = $setup['at'];
            $turn = $this->orientation($setup);
            if (null === $turn) {
                if ($setup['azimuth']
                    && !$this->blockHasNoNorth
                    && $this->known($setup['rays'][0][0])
                    && isset($this->distances[$at][$setup['rays'][0][0]])
                ) {
                    [$to, $azimuth] = $setup['rays'][0];
                    $d = $this->distances[$at][$to];
                    $this->place($at, (float) $this->e[$to] - $d * sin($azimuth), (float) $this->n[$to] - $d * cos($azimuth));
                    ++$found;
                }
                continue;
            }
            foreach ($setup['rays'] as [$to, $direction]) {
                if (!$this->known($to) && isset($this->distances[$at][$to])) {
                    $d = $this->distances[$at][$to];
                    $this->place(
                        $to, (float) $this->e[$at] + $d * sin($turn + $direction),
                        (float) $this->n[$at] + $d * cos($turn + $direction),
                    );
                    ++$found;
                }
            }
        }

        return $found;
    }

    private function heightsKnown(): int
    {
        $found = 0;
        foreach ($this->heights as [$from, $to, $difference]) {
            $found += $this->carryHeight($from, $to, $difference);
        }
        foreach ($this->zeniths as [$from, $to, $zenith, $offset]) {
            $d = $this->known($from) && $this->known($to)
                ? hypot((float) $this->e[$to] - (float) $this->e[$from], (float) $this->n[$to] - (float) $this->n[$from])
                : ($this->distances[$from][$to] ?? null);
            if (null !== $d && abs(sin($zenith)) > 1e-6) {
                $found += $this->carryHeight($from, $to, $d / tan($zenith) + $offset);
            }
        }

        return $found;
    }

    private function carryHeight(int $from, int $to, float $difference): int
    {
        if (null !== $this->h[$from] && null === $this->h[$to]) {
            $this->h[$to] = $this->h[$from] + $difference;

            return 1;
        }
        if (null !== $this->h[$to] && null === $this->h[$from]) {
            $this->h[$from] = $this->h[$to] - $difference;

            return 1;
        }

        return 0;
    }

    /** An unknown setup that sights two or more known points with distances: rotate and shift its local polar points. */
    private function freeStations(): int
    {
        $found = 0;
        foreach ($this->setups as $setup) {
            $at = $setup['at'];
            if ($this->known($at)) {
                continue;
            }
            $pairs = [];
            foreach ($setup['rays'] as [$to, $direction]) {
                if ($this->known($to) && isset($this->distances[$at][$to])) {
                    $d = $this->distances[$at][$to];
                    $pairs[] = [$d * sin($direction), $d * cos($direction), (float) $this->e[$to], (float) $this->n[$to]];
                }
            }
            $fit = self::turnAndShift($pairs);
            if (null === $fit) {
                continue;
            }
            $this->place($at, $fit[2], $fit[3]);
            ++$found;
        }

        return $found;
    }

    private function intersections(): int
    {
        /** @var array<int, list<array{int, float}>> $rays bearings from known stations to unknown ones */
        $rays = [];
        foreach ($this->setups as $setup) {
            $turn = $this->orientation($setup);
            if (null === $turn) {
                continue;
            }
            foreach ($setup['rays'] as [$to, $direction]) {
                if (!$this->known($to)) {
                    $rays[$to][] = [$setup['at'], $turn + $direction];
                }
            }
        }
        $found = 0;
        foreach ($rays as $to => $list) {
            $best = null;
            foreach ($list as $i => [$a, $alpha]) {
                for ($j = 0; $j < $i; ++$j) {
                    [$b, $beta] = $list[$j];
                    $sine = sin($alpha - $beta);
                    if ($a !== $b && abs($sine) > ($best[0] ?? 0.02)) {
                        $best = [abs($sine), $a, $alpha, $b, $beta];
                    }
                }
            }
            if (null !== $best) {
                [, $a, $alpha, $b, $beta] = $best;
                $de = (float) $this->e[$b] - (float) $this->e[$a];
                $dn = (float) $this->n[$b] - (float) $this->n[$a];
                $t = ($de * cos($beta) - $dn * sin($beta)) / sin($alpha - $beta);
                $this->place($to, (float) $this->e[$a] + $t * sin($alpha), (float) $this->n[$a] + $t * cos($alpha));
                ++$found;
            }
        }

        return $found;
    }

    /** Stations by what they see of known ones and what known ones see of them. */
    private function loci(): int
    {
        /** @var array<int, Loci> $loci */
        $loci = [];
        foreach ($this->setups as $setup) {
            $at = $setup['at'];
            $turn = $this->known($at) ? $this->orientation($setup) : $this->orientationByAzimuth($setup);
            $first = null;
            foreach ($setup['rays'] as [$to, $direction]) {
                if (!$this->known($at) && $this->known($to)) {
                    $loci[$at] ??= new Loci();
                    if (null !== $turn) {
                        $loci[$at]->ray((float) $this->e[$to], (float) $this->n[$to], $turn + $direction + \M_PI);
                    }
                    if (null !== $first && $first[0] !== $to) {
                        $loci[$at]->angle(
                            (float) $this->e[$first[0]], (float) $this->n[$first[0]], (float) $this->e[$to],
                            (float) $this->n[$to], $direction - $first[1],
                        );
                    }
                    $first ??= [$to, $direction];
                } elseif ($this->known($at) && !$this->known($to) && null !== $turn) {
                    $loci[$to] ??= new Loci();
                    $loci[$to]->ray((float) $this->e[$at], (float) $this->n[$at], $turn + $direction);
                }
            }
        }
        foreach ($this->distances as $at => $targets) {
            foreach ($targets as $to => $distance) {
                if (!$this->known($at) && $this->known($to)) {
                    $loci[$at] ??= new Loci();
                    $loci[$at]->distance((float) $this->e[$to], (float) $this->n[$to], $distance);
                }
            }
        }
        $found = 0;
        foreach ($loci as $at => $ties) {
            $place = $ties->meet();
            if (null !== $place) {
                $this->place($at, $place[0], $place[1]);
                ++$found;
            }
        }

        return $found;
    }
}
