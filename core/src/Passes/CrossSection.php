<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** What a scan shows across a way at a place: points within a slice at right angles to it. Metres. */
final readonly class CrossSection
{
    /**
     * @param float $east  of the place
     * @param float $ahead direction of the way, radians from east
     * @param float $half  half the width across
     * @param float $thick of the slice, along the way
     */
    public function __construct(
        private float $east, private float $north, private float $ahead, private float $half, private float $thick,
    ) {
    }

    /** At a plan length along a trajectory; before its begin and after its end, there. */
    public static function at(Trajectory $t, float $along, float $half, float $thick): self
    {
        $lengths = $t->along();
        $last = \count($lengths) - 1;
        $i = max(0, min($last - 1, Trajectory::before($lengths, $along)));
        $j = min($last, $i + 1);
        $length = $lengths[$j] - $lengths[$i];
        $part = $length > 0.0 ? max(0.0, min(1.0, ($along - $lengths[$i]) / $length)) : 0.0;
        [$de, $dn] = [$t->e[$j] - $t->e[$i], $t->n[$j] - $t->n[$i]];

        return new self($t->e[$i] + $part * $de, $t->n[$i] + $part * $dn, atan2($dn, $de), $half, $thick);
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{list<float>, list<float>} offsets, right of the way positive, and heights
     */
    public function of(array $x, array $y, array $z): array
    {
        [$c, $s] = [cos($this->ahead), sin($this->ahead)];
        $thick = 0.5 * $this->thick;
        $offsets = $heights = [];
        foreach ($x as $i => $e) {
            $e -= $this->east;
            $n = $y[$i] - $this->north;
            $along = $c * $e + $s * $n;
            if ($along <= $thick && $along >= -$thick) {
                $offset = $s * $e - $c * $n;
                if ($offset <= $this->half && $offset >= -$this->half) {
                    $offsets[] = $offset;
                    $heights[] = $z[$i];
                }
            }
        }

        return [$offsets, $heights];
    }

    /** @return array{float, float, float, float} west, south, east and north of all of it */
    public function box(): array
    {
        [$c, $s] = [abs(cos($this->ahead)), abs(sin($this->ahead))];
        [$e, $n] = [$this->half * $s + 0.5 * $this->thick * $c, $this->half * $c + 0.5 * $this->thick * $s];

        return [$this->east - $e, $this->north - $n, $this->east + $e, $this->north + $n];
    }

    /** @return array{float, float, float, float} both ends in plan, left first */
    public function ends(): array
    {
        [$e, $n] = [$this->half * sin($this->ahead), -$this->half * cos($this->ahead)];

        return [$this->east - $e, $this->north - $n, $this->east + $e, $this->north + $n];
    }
}
