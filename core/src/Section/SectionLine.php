<?php

declare(strict_types=1);

namespace Mensura\Section;

use Mensura\Fault\UnusableInput;

/** A line in plan along which is cut: vertices with their stations from its begin. Metres. */
final readonly class SectionLine
{
    /** @var list<float> of the vertices, growing */
    public array $stations;

    public float $length;

    /**
     * @param list<float>  $x        easting
     * @param list<float>  $y        northing
     * @param ?list<float> $stations of the vertices, where they are those of a curve the line stands for
     *
     * @throws UnusableInput for fewer than two places
     */
    public function __construct(public array $x, public array $y, ?array $stations = null)
    {
        $length = 0.0;
        if (null === $stations) {
            $stations = [];
            foreach ($x as $i => $e) {
                $length += $i > 0 ? hypot($e - $x[$i - 1], $y[$i] - $y[$i - 1]) : 0.0;
                $stations[] = $length;
            }
        } else {
            $length = $stations[\count($stations) - 1] ?? 0.0;
        }
        if (!($length > 0.0)) {
            throw new UnusableInput('', 'the line has no length: two places that differ are needed');
        }
        $this->stations = $stations;
        $this->length = $length;
    }

    /**
     * The line across at a station, from left to right.
     *
     * @param float $half metres to either side
     */
    public function across(float $station, float $half): self
    {
        $i = 1;
        while ($i + 1 < \count($this->x) && $this->stations[$i] < $station) {
            ++$i;
        }
        [$dx, $dy] = [$this->x[$i] - $this->x[$i - 1], $this->y[$i] - $this->y[$i - 1]];
        $part = ($station - $this->stations[$i - 1]) / ($this->stations[$i] - $this->stations[$i - 1]);
        [$e, $n] = [$this->x[$i - 1] + $part * $dx, $this->y[$i - 1] + $part * $dy];
        [$ux, $uy] = [$dx / hypot($dx, $dy), $dy / hypot($dx, $dy)];

        return new self([$e - $half * $uy, $e + $half * $uy], [$n + $half * $ux, $n - $half * $ux]);
    }

    /**
     * Station of the foot of the shortest perpendicular on a segment, and the offset, right positive.
     *
     * @return ?array{float, float} null where no perpendicular of at most the limit falls on a segment
     */
    public function foot(float $px, float $py, float $limit): ?array
    {
        $best = null;
        for ($i = 1, $n = \count($this->x); $i < $n; ++$i) {
            $dx = $this->x[$i] - $this->x[$i - 1];
            $dy = $this->y[$i] - $this->y[$i - 1];
            $length = $this->stations[$i] - $this->stations[$i - 1];
            if (!($length > 0.0)) {
                continue;
            }
            $along = (($px - $this->x[$i - 1]) * $dx + ($py - $this->y[$i - 1]) * $dy) / $length;
            $offset = (($px - $this->x[$i - 1]) * $dy - ($py - $this->y[$i - 1]) * $dx) / $length;
            if ($along >= 0.0 && $along <= $length && abs($offset) <= $limit && (null === $best || abs($offset) < abs($best[1]))) {
                $best = [$this->stations[$i - 1] + $along, $offset];
            }
        }

        return $best;
    }
}
