<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Observation\ObservationKind;

/**
 * Approximate coordinates for stations that have none, carried outwards from those that do.
 *
 * In turn, until nothing new is found: vectors, polar points from oriented setups, free stations from two or more
 * sighted distances, intersections, three-point resections (Tienstra), three distances, local blocks; heights by levelled
 * differences and zenith angles. Good to the size of a wild guess (curvature and grid scale are ignored);
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

    /** @var array<int, array<int, float>> horizontal distances by ends */
    private array $distances = [];

    /** @var list<array{int, int, float}> from, to, height difference */
    private array $heights = [];

    /** @var list<array{int, int, float, float}> from, to, zenith in radians, hi - ht */
    private array $zeniths = [];

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
            } while ($found > 0);
        }

        return [$self->e, $self->n, $self->h];
    }

    private function plan(): int
    {
        $found = $this->freeStations();
        $found = $found > 0 ? $found : $this->intersections();
        $found = $found > 0 ? $found : $this->resections();

        return $found > 0 ? $found : $this->trilaterations();
    }

    /**
     * Setups that hang together but see too little that is known: computed about one of them in a frame of their own,
     * then turned and shifted onto the two or more known stations among them.
     */
    private function localBlocks(): int
    {
        $known = [$this->e, $this->n];
        $nothing = array_fill(0, \count($this->e), null);
        $visited = [];
        $found = 0;
        foreach ($this->setups as $setup) {
            $at = $setup['at'];
            $ray = array_values(array_filter($setup['rays'], fn (array $r): bool => isset($this->distances[$at][$r[0]])))[0] ?? null;
            if ($setup['azimuth'] || null === $ray || isset($visited[$at])) {
                continue;
            }
            $this->e = $this->n = $nothing;
            $this->place($at, 0.0, 0.0);
            $d = $this->distances[$at][$ray[0]];
            $this->place($ray[0], $d * sin($ray[1]), $d * cos($ray[1]));
            while ($this->polar(false) > 0 || $this->plan() > 0) {
                continue;
            }
            $local = [$this->e, $this->n];
            [$this->e, $this->n] = $known;
            $pairs = [];
            foreach ($local[0] as $s => $x) {
                if (null !== $x) {
                    $visited[$s] = true;
                    if ($this->known($s)) {
                        $pairs[] = [$x, (float) $local[1][$s], (float) $this->e[$s], (float) $this->n[$s]];
                    }
                }
            }
            $fit = self::turnAndShift($pairs);
            if (null === $fit) {
                continue;
            }
            [$cos, $sin, $e0, $n0] = $fit;
            foreach ($local[0] as $s => $x) {
                if (null !== $x && !$this->known($s)) {
                    $y = (float) $local[1][$s];
                    $this->place($s, $e0 + $x * $cos - $y * $sin, $n0 + $x * $sin + $y * $cos);
                    ++$found;
                }
            }
            $known = [$this->e, $this->n];
        }
        [$this->e, $this->n] = $known;

        return $found;
    }

    /**
     * Least-squares rotation and translation without scale.
     *
     * @param list<array{float, float, float, float}> $pairs local x, y, then e, n
     *
     * @return ?array{float, float, float, float} cosine, sine, e and n of the local origin; null with fewer than two places
     */
    private static function turnAndShift(array $pairs): ?array
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
        $dot = $cross = 0.0;
        foreach ($pairs as [$x, $y, $e, $n]) {
            $dot += ($x - $mean[0]) * ($e - $mean[2]) + ($y - $mean[1]) * ($n - $mean[3]);
            $cross += ($x - $mean[0]) * ($n - $mean[3]) - ($y - $mean[1]) * ($e - $mean[2]);
        }
        if (hypot($dot, $cross) < 1e-6) {
            return null;
        }
        $a = atan2($cross, $dot);

        return [cos($a), sin($a), $mean[2] - $mean[0] * cos($a) + $mean[1] * sin($a), $mean[3] - $mean[0] * sin($a) - $mean[1] * cos($a)];
    }

    private function collect(): void
    {
        $index = $this->network->stationIndex;
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
                    $this->setups["angle $i"] = ['at' => $from, 'rays' => [[$index[(string) $o->back], 0.0], [$to, deg2rad($o->value)]], 'azimuth' => false];
                    break;
                case ObservationKind::Azimuth:
                    $this->setups["azimuth $i"] = ['at' => $from, 'rays' => [[$to, deg2rad($o->value)]], 'azimuth' => true];
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
            return 0.0;
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

        return $any ? atan2($s, $c) : null;
    }

    private function bearing(int $from, int $to): float
    {
        return atan2((float) $this->e[$to] - (float) $this->e[$from], (float) $this->n[$to] - (float) $this->n[$from]);
    }

    private function polar(bool $azimuths = true): int
    {
        $found = 0;
        foreach ($this->setups as $setup) {
            if ($setup['azimuth'] && !$azimuths) {
                continue; // an azimuth means nothing in a frame of one's own
            }
            $at = $setup['at'];
            $turn = $this->orientation($setup);
            if (null === $turn) {
                if ($setup['azimuth'] && $this->known($setup['rays'][0][0]) && isset($this->distances[$at][$setup['rays'][0][0]])) {
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
                    $this->place($to, (float) $this->e[$at] + $d * sin($turn + $direction), (float) $this->n[$at] + $d * cos($turn + $direction));
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

    /** Three directions to known points, no distances. */
    private function resections(): int
    {
        $found = 0;
        foreach ($this->setups as $setup) {
            if ($this->known($setup['at'])) {
                continue;
            }
            $rays = array_values(array_filter($setup['rays'], fn (array $ray): bool => $this->known($ray[0])));
            $count = \count($rays);
            for ($i = 0, $solved = 0; $i + 2 < $count && 0 === $solved; ++$i) {
                $solved = $this->resect($setup['at'], $rays[$i], $rays[$i + 1], $rays[$i + 2]);
                $found += $solved;
            }
        }

        return $found;
    }

    /**
     * @param array{int, float} $a
     * @param array{int, float} $b
     * @param array{int, float} $c
     */
    private function resect(int $at, array $a, array $b, array $c): int
    {
        $cot = static fn (float $x): float => cos($x) / sin($x);
        $corner = function (int $at, int $from, int $to): float {
            return $this->bearing($at, $to) - $this->bearing($at, $from);
        };
        $angles = [$c[1] - $b[1], $a[1] - $c[1], $b[1] - $a[1]];
        $corners = [$corner($a[0], $b[0], $c[0]), $corner($b[0], $c[0], $a[0]), $corner($c[0], $a[0], $b[0])];
        $weights = [];
        foreach ([0, 1, 2] as $k) {
            if (abs(sin($angles[$k])) < 1e-3 || abs(sin($corners[$k])) < 1e-3) {
                return 0;
            }
            $difference = $cot($corners[$k]) - $cot($angles[$k]);
            if (abs($difference) < 1e-6) {
                return 0; // on the danger circle
            }
            $weights[] = 1.0 / $difference;
        }
        $sum = array_sum($weights);
        if (abs($sum) < 1e-9) {
            return 0;
        }
        $e = $n = 0.0;
        foreach ([$a[0], $b[0], $c[0]] as $k => $s) {
            $e += $weights[$k] * (float) $this->e[$s] / $sum;
            $n += $weights[$k] * (float) $this->n[$s] / $sum;
        }
        $this->place($at, $e, $n);

        return 1;
    }

    /** Distances to three or more known points: difference of circles, linear in the unknown position. */
    private function trilaterations(): int
    {
        $found = 0;
        foreach ($this->distances as $at => $targets) {
            if ($this->known($at)) {
                continue;
            }
            $known = array_filter($targets, fn (int $to): bool => $this->known($to), \ARRAY_FILTER_USE_KEY);
            if (\count($known) < 3) {
                continue;
            }
            $first = array_key_first($known);
            $e0 = (float) $this->e[$first];
            $n0 = (float) $this->n[$first];
            $aa = $ab = $bb = $ac = $bc = 0.0;
            foreach ($known as $to => $d) {
                $a = (float) $this->e[$to] - $e0;
                $b = (float) $this->n[$to] - $n0;
                $c = 0.5 * ($a * $a + $b * $b - $d * $d + $known[$first] ** 2);
                $aa += $a * $a;
                $ab += $a * $b;
                $bb += $b * $b;
                $ac += $a * $c;
                $bc += $b * $c;
            }
            $det = $aa * $bb - $ab * $ab;
            if ($det > 1e-4 * $aa * $bb) {
                $this->place($at, $e0 + ($bb * $ac - $ab * $bc) / $det, $n0 + ($aa * $bc - $ab * $ac) / $det);
                ++$found;
            }
        }

        return $found;
    }
}
