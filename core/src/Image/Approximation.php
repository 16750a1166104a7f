<?php

declare(strict_types=1);

namespace Mensura\Image;

use Mensura\Fault\UnusableInput;

/** Where a solution begins: rotations that are not given, from directions to what is known; points, from where rays meet. */
final class Approximation
{
    /** Sine of the least angle two rays meet at that says where. */
    private const LEAST = 0.005;

    /** @var array<int, list<float>> rotations by image */
    public array $rotations = [];

    /** @var array<int, array{float, float, float}> places by point */
    public array $places = [];

    /** @var array<int, list<int>> rays by image, and by point */
    private array $ofImage = [];
    /** @var array<int, list<int>> */
    private array $ofPoint = [];

    /** @var array<int, array{float, float, float}> unit vectors in the camera, by ray */
    private array $directions = [];

    /** @throws UnusableInput naming an image whose rotation cannot be found */
    public function __construct(private readonly Block $b, private readonly UsedRays $used)
    {
        foreach ($used->rays as $r) {
            $this->ofImage[$b->rayImage[$r]][] = $r;
            $this->ofPoint[$b->rayPoint[$r]][] = $r;
            [$x, $y] = Lens::direction($b->cameras[$b->cameraOf[$b->rayImage[$r]]], $b->rayX[$r], $b->rayY[$r]);
            $l = sqrt($x * $x + $y * $y + 1.0);
            $this->directions[$r] = [$x / $l, -$y / $l, -1.0 / $l];
        }
        foreach ($used->points as $p => $_) {
            if (Block::CONTROL === $b->roles[$p] && null !== $b->places[$p]) {
                $this->places[$p] = $b->places[$p];
            }
        }
        foreach ($used->images as $i => $_) {
            if (null !== $b->rotations[$i]) {
                $this->rotations[$i] = $b->rotations[$i];
            }
        }
        $this->meet();
        while ($this->orientNext()) {
            $this->meet();
        }
        $this->rest();
    }

    /** Orients the images that see most of what is known; false when there is none left. */
    private function orientNext(): bool
    {
        $best = [];
        $most = 1;
        foreach ($this->used->images as $i => $_) {
            if (isset($this->rotations[$i])) {
                continue;
            }
            $known = array_filter($this->ofImage[$i], fn (int $r): bool => isset($this->places[$this->b->rayPoint[$r]]));
            if (\count($known) > $most) {
                [$best, $most] = [[$i => $known], \count($known)];
            }
        }
        if ([] === $best) {
            $open = array_diff_key($this->used->images, $this->rotations);
            // What is given of tie points are approximations only, but better than nothing.
            if ([] !== $open && !$this->takeGiven() && !$this->joinNext($open) && !$this->beginLevel($open)) {
                throw new UnusableInput('', \sprintf(
                    'image %s: its rays do not determine it; give its angles, or control in it', $this->b->imageIds[array_key_first($open)],
                ));
            }

            return [] !== $open;
        }
        foreach ($best as $i => $known) {
            $camera = $ground = [];
            [$e, $n, $h] = $this->b->positions[$i];
            foreach ($known as $r) {
                [$x, $y, $z] = $this->places[$this->b->rayPoint[$r]];
                $l = hypot(hypot($x - $e, $y - $n), $z - $h);
                if ($l > 0.0) {
                    $camera[] = $this->directions[$r];
                    $ground[] = [($x - $e) / $l, ($y - $n) / $l, ($z - $h) / $l];
                }
            }
            $this->rotations[$i] = Rotation::between($camera, $ground);
        }

        return true;
    }

    /**
     * The image that shares most rays with an oriented one, from those rays.
     *
     * @param array<int, true> $open
     */
    private function joinNext(array $open): bool
    {
        $most = Coplanarity::LEAST - 1;
        $pair = null;
        foreach ($open as $i => $_) {
            foreach ($this->rotations as $j => $_) {
                $shared = \count($this->shared($i, $j));
                if ($shared > $most) {
                    [$most, $pair] = [$shared, [$i, $j]];
                }
            }
        }
        if (null === $pair) {
            return false;
        }
        [$i, $j] = $pair;
        $found = $this->joined($i, $j, $this->rotations[$j]);
        if (null !== $found) {
            $this->rotations[$i] = $found[0];
        }

        return null !== $found;
    }

    /**
     * Where nothing is oriented and no control says: a pair of images that look down, as those of a flight do. Which way is up in
     * them is what fits best; how they are tilted, the solution finds.
     *
     * @param array<int, true> $open
     */
    private function beginLevel(array $open): bool
    {
        if ([] !== $this->rotations) {
            return false;
        }
        $most = Coplanarity::LEAST - 1;
        $pair = null;
        foreach ($open as $i => $_) {
            foreach ($open as $j => $_) {
                $shared = $i < $j ? \count($this->shared($i, $j)) : 0;
                if ($shared > $most) {
                    [$most, $pair] = [$shared, [$i, $j]];
                }
            }
        }
        if (null === $pair) {
            return false;
        }
        [$i, $j] = $pair;
        $best = null;
        for ($k = 0; $k < 72; ++$k) {
            $level = Rotation::of(0.0, 0.0, 5.0 * $k);
            $found = $this->joined($i, $j, $level);
            if (null !== $found && (null === $best || $found[1] < $best[1])) {
                $best = [$found[0], $found[1], $level];
            }
        }
        if (null === $best) {
            return false;
        }
        [$this->rotations[$i], , $this->rotations[$j]] = $best;

        return true;
    }

    /**
     * @param list<float> $oriented rotation of the other image
     *
     * @return ?array{list<float>, float}
     */
    private function joined(int $i, int $j, array $oriented): ?array
    {
        $own = $known = [];
        foreach ($this->shared($i, $j) as [$r, $s]) {
            $own[] = $this->directions[$r];
            $known[] = Rotation::ground($oriented, $this->directions[$s]);
        }
        [$to, $from] = [$this->b->positions[$i], $this->b->positions[$j]];

        return Coplanarity::rotation([$to[0] - $from[0], $to[1] - $from[1], $to[2] - $from[2]], $known, $own, $oriented);
    }

    /** @return list<array{int, int}> rays of two images to the same point */
    private function shared(int $i, int $j): array
    {
        $of = [];
        foreach ($this->ofImage[$j] as $r) {
            $of[$this->b->rayPoint[$r]] = $r;
        }
        $shared = [];
        foreach ($this->ofImage[$i] as $r) {
            if (isset($of[$this->b->rayPoint[$r]])) {
                $shared[] = [$r, $of[$this->b->rayPoint[$r]]];
            }
        }

        return $shared;
    }

    private function takeGiven(): bool
    {
        $taken = false;
        foreach ($this->used->points as $p => $_) {
            if (!isset($this->places[$p]) && null !== $this->b->places[$p]) {
                $this->places[$p] = $this->b->places[$p];
                $taken = true;
            }
        }

        return $taken;
    }

    /** Points that two oriented images see, where their rays come nearest to each other; control stays. */
    private function meet(): void
    {
        foreach ($this->ofPoint as $p => $rays) {
            if (Block::CONTROL === $this->b->roles[$p]) {
                continue;
            }
            $known = array_values(array_filter($rays, fn (int $r): bool => isset($this->rotations[$this->b->rayImage[$r]])));
            $place = \count($known) < 2 ? null : $this->nearest($known);
            if (null !== $place) {
                $this->places[$p] = $place;
            }
        }
    }

    /**
     * @param list<int> $rays
     *
     * @return ?array{float, float, float} null where they are as good as parallel, or meet behind an image
     */
    private function nearest(array $rays): ?array
    {
        $n = array_fill(0, 9, 0.0);
        $g = [0.0, 0.0, 0.0];
        $ways = [];
        foreach ($rays as $r) {
            $d = $this->way($r);
            $c = $this->b->positions[$this->b->rayImage[$r]];
            $ways[] = [$d, $c];
            $along = $d[0] * $c[0] + $d[1] * $c[1] + $d[2] * $c[2];
            foreach ([0, 1, 2] as $i) {
                $g[$i] += $c[$i] - $d[$i] * $along;
                foreach ([0, 1, 2] as $j) {
                    $n[3 * $i + $j] += ($i === $j ? 1.0 : 0.0) - $d[$i] * $d[$j];
                }
            }
        }
        $q = SymmetricThree::inverse([$n[0], $n[1], $n[2], $n[4], $n[5], $n[8]], self::LEAST * self::LEAST);
        if (null === $q) {
            return null;
        }
        $place = SymmetricThree::times($q, $g);
        foreach ($ways as [$d, $c]) {
            if ($d[0] * ($place[0] - $c[0]) + $d[1] * ($place[1] - $c[1]) + $d[2] * ($place[2] - $c[2]) <= 0.0) {
                return null;
            }
        }

        return $place;
    }

    /** @return array{float, float, float} */
    private function way(int $ray): array
    {
        return Rotation::ground($this->rotations[$this->b->rayImage[$ray]], $this->directions[$ray]);
    }

    /** Points whose rays say little: as given, or along a ray as far as others are. */
    private function rest(): void
    {
        $far = [];
        foreach ($this->used->rays as $r) {
            $p = $this->places[$this->b->rayPoint[$r]] ?? null;
            if (null !== $p) {
                [$e, $n, $h] = $this->b->positions[$this->b->rayImage[$r]];
                $far[] = hypot(hypot($p[0] - $e, $p[1] - $n), $p[2] - $h);
            }
        }
        sort($far);
        $away = [] === $far ? 1.0 : $far[intdiv(\count($far), 2)];
        foreach ($this->used->points as $p => $_) {
            if (isset($this->places[$p])) {
                continue;
            }
            $given = $this->b->places[$p];
            $r = $this->ofPoint[$p][0] ?? null;
            if (null !== $given || null === $r) {
                $this->places[$p] = $given ?? [0.0, 0.0, 0.0];
                continue;
            }
            $d = $this->way($r);
            [$e, $n, $h] = $this->b->positions[$this->b->rayImage[$r]];
            $this->places[$p] = [$e + $away * $d[0], $n + $away * $d[1], $h + $away * $d[2]];
        }
    }
}
