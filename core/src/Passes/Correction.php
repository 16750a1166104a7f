<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** What is added to the places of a pass, as a function of time: linear between knots, constant outside. Seconds, metres. */
final readonly class Correction
{
    /**
     * @param list<float>                       $times  growing
     * @param list<array{float, float, float}> $shifts e, n, h at each
     */
    public function __construct(public array $times, public array $shifts)
    {
    }

    public static function none(): self
    {
        return new self([], []);
    }

    /** @return array{float, float, float} */
    public function at(float $time): array
    {
        $last = \count($this->times) - 1;
        if ($last < 0) {
            return [0.0, 0.0, 0.0];
        }
        $k = Trajectory::before($this->times, $time);
        if ($k < 0 || $k >= $last) {
            return $this->shifts[$k < 0 ? 0 : $last];
        }
        $part = ($time - $this->times[$k]) / ($this->times[$k + 1] - $this->times[$k]);
        [$a, $b] = [$this->shifts[$k], $this->shifts[$k + 1]];

        return [$a[0] + $part * ($b[0] - $a[0]), $a[1] + $part * ($b[1] - $a[1]), $a[2] + $part * ($b[2] - $a[2])];
    }

    /**
     * Places moved, each by what belongs to its time.
     *
     * @param list<float> $t
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    public function apply(array $t, array $x, array $y, array $z): array
    {
        $moved = [[], [], []];
        foreach ($t as $i => $time) {
            [$e, $n, $h] = $this->at($time);
            $moved[0][] = $x[$i] + $e;
            $moved[1][] = $y[$i] + $n;
            $moved[2][] = $z[$i] + $h;
        }

        return $moved;
    }

    /**
     * Where what lies in a box may have been before.
     *
     * @param array{float, float, float, float} $box west, south, east, north
     *
     * @return array{float, float, float, float}
     */
    public function back(array $box): array
    {
        $east = [0.0, ...array_column($this->shifts, 0)];
        $north = [0.0, ...array_column($this->shifts, 1)];

        return [$box[0] - max($east), $box[1] - max($north), $box[2] - min($east), $box[3] - min($north)];
    }

    /** Without one of its knots. */
    public function without(int $knot): self
    {
        [$times, $shifts] = [$this->times, $this->shifts];
        array_splice($times, $knot, 1);
        array_splice($shifts, $knot, 1);

        return new self($times, $shifts);
    }
}
