<?php

declare(strict_types=1);

namespace Mensura\Network;

/**
 * Where one unknown station lies by what ties it to known ones: rays from them (intersection), angles between them seen
 * from the station (resection: the circle over their chord, Euclid III.21), distances. Two loci meet in at most two
 * places; the one that agrees with all loci is taken, and none when two places agree equally well.
 *
 * Metres in the plane, radians; bearings and angles clockwise.
 */
final class Loci
{
    /** More add nothing to an approximate place. */
    private const MOST = 12;

    /** An angle nearer to 0 or 180 degrees gives no circle. */
    private const LEAST_SINE = 1e-3;

    /** Misfits (radians, or parts of a distance) below this are no ground to choose between two places. */
    private const AGREES = 1e-3;

    /** A misfit beyond this is no place at all. */
    private const WRONG = 0.3;

    /** @var list<array{float, float, float}> rays: e, n of the known end, bearing from it */
    private array $rays = [];

    /** @var list<array{float, float, float, float, float}> angles: e, n of the first and the second known end, angle */
    private array $angles = [];

    /** @var list<array{float, float, float}> circles: e, n of the centre, radius */
    private array $circles = [];

    /** @var list<array{float, float, float}> distances: e, n of the known end, distance */
    private array $distances = [];

    /** @var list<array{float, float}> known ends */
    private array $ends = [];

    public function ray(float $e, float $n, float $bearing): void
    {
        if (\count($this->rays) < self::MOST) {
            $this->rays[] = [$e, $n, $bearing];
            $this->ends[] = [$e, $n];
        }
    }

    public function angle(float $e1, float $n1, float $e2, float $n2, float $angle): void
    {
        $length = hypot($e2 - $e1, $n2 - $n1);
        if (\count($this->angles) >= self::MOST || abs(sin($angle)) < self::LEAST_SINE || $length <= 0.0) {
            return;
        }
        $half = 0.5 * cos($angle) / sin($angle);
        $this->angles[] = [$e1, $n1, $e2, $n2, $angle];
        $this->circles[] = [
            0.5 * ($e1 + $e2) + $half * ($n2 - $n1), 0.5 * ($n1 + $n2) - $half * ($e2 - $e1),
            0.5 * $length / abs(sin($angle)),
        ];
        $this->ends[] = [$e1, $n1];
        $this->ends[] = [$e2, $n2];
    }

    public function distance(float $e, float $n, float $distance): void
    {
        if (\count($this->distances) < self::MOST && $distance > 0.0) {
            $this->distances[] = [$e, $n, $distance];
            $this->circles[] = [$e, $n, $distance];
            $this->ends[] = [$e, $n];
        }
    }

    /** @return ?array{float, float} e, n; null when they meet nowhere or do not tell two places apart */
    public function meet(): ?array
    {
        if (\count($this->rays) + \count($this->circles) < 2) {
            return null;
        }
        $scale = 0.0;
        foreach ($this->ends as [$e, $n]) {
            $scale = max($scale, hypot($e - $this->ends[0][0], $n - $this->ends[0][1]));
        }
        foreach ($this->circles as [, , $radius]) {
            $scale = max($scale, min($radius, 1e3 * $scale));
        }
        $places = [];
        foreach ($this->crossings() as $place) {
            $misfit = $this->misfit($place, 1e-4 * $scale);
            if ($misfit < self::WRONG) {
                $places[] = [$misfit, $place];
            }
        }
        usort($places, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        [$best, $at] = $places[0] ?? [null, null];
        foreach ($places as [$misfit, $place]) {
            if (null !== $at && hypot($place[0] - $at[0], $place[1] - $at[1]) > 0.02 * $scale) {
                return $misfit < max(self::AGREES, 1.5 * $best) ? null : $at;
            }
        }

        return $at;
    }

    /** @return iterable<array{float, float}> */
    private function crossings(): iterable
    {
        foreach ($this->rays as $i => [$e, $n, $bearing]) {
            $s = sin($bearing);
            $c = cos($bearing);
            for ($j = 0; $j < $i; ++$j) {
                [$e2, $n2, $other] = $this->rays[$j];
                $sine = sin($other - $bearing);
                if (abs($sine) > 0.02) {
                    $t = (($n - $n2) * sin($other) - ($e - $e2) * cos($other)) / -$sine;
                    yield [$e + $t * $s, $n + $t * $c];
                }
            }
            foreach ($this->circles as [$e2, $n2, $radius]) {
                $along = ($e2 - $e) * $s + ($n2 - $n) * $c;
                $off = ($e2 - $e) * $c - ($n2 - $n) * $s;
                $half = sqrt(max(0.0, $radius * $radius - $off * $off));
                yield [$e + ($along + $half) * $s, $n + ($along + $half) * $c];
                yield [$e + ($along - $half) * $s, $n + ($along - $half) * $c];
            }
        }
        foreach ($this->circles as $i => [$e, $n, $radius]) {
            for ($j = 0; $j < $i; ++$j) {
                [$e2, $n2, $other] = $this->circles[$j];
                $d = hypot($e2 - $e, $n2 - $n);
                if ($d < 1e-6 * $radius) {
                    continue; // one circle: the danger circle of a resection
                }
                $along = ($d * $d + $radius * $radius - $other * $other) / (2.0 * $d);
                $half = sqrt(max(0.0, $radius * $radius - $along * $along));
                $ue = ($e2 - $e) / $d;
                $un = ($n2 - $n) / $d;
                yield [$e + $along * $ue - $half * $un, $n + $along * $un + $half * $ue];
                yield [$e + $along * $ue + $half * $un, $n + $along * $un - $half * $ue];
            }
        }
    }

    /** @param array{float, float} $place */
    private function misfit(array $place, float $nearest): float
    {
        [$e, $n] = $place;
        foreach ($this->ends as [$e1, $n1]) {
            if (!(hypot($e - $e1, $n - $n1) > $nearest)) {
                return \INF; // circles over chords with a common end meet there too
            }
        }
        $worst = 0.0;
        foreach ($this->rays as [$e1, $n1, $bearing]) {
            $worst = max($worst, abs(self::turned(atan2($e - $e1, $n - $n1) - $bearing)));
        }
        foreach ($this->angles as [$e1, $n1, $e2, $n2, $angle]) {
            $worst = max($worst, abs(self::turned(atan2($e2 - $e, $n2 - $n) - atan2($e1 - $e, $n1 - $n) - $angle)));
        }
        foreach ($this->distances as [$e1, $n1, $distance]) {
            $worst = max($worst, abs(hypot($e - $e1, $n - $n1) - $distance) / $distance);
        }

        return $worst;
    }

    /** An angle brought between -pi and pi. */
    private static function turned(float $angle): float
    {
        return $angle - 2.0 * \M_PI * round($angle / (2.0 * \M_PI));
    }
}
