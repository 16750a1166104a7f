<?php

declare(strict_types=1);

namespace Mensura\Cloud;

use Mensura\Fault\UnusableInput;

/** What of a cloud is kept: a rectangle, or polygons with holes. In plan, in the cloud's own coordinates; edges belong to it. */
final readonly class Crop
{
    /**
     * @param array{float, float, float, float}        $box   west, south, east, north
     * @param ?list<list<list<array{float, float}>>>   $areas rings of each polygon, outer first; null for the box itself
     */
    private function __construct(private array $box, private ?array $areas)
    {
    }

    public static function box(float $west, float $south, float $east, float $north): self
    {
        if ($west >= $east || $south >= $north) {
            throw new UnusableInput('--crop', 'has its west beyond its east, or its south beyond its north: give W,S,E,N');
        }

        return new self([$west, $south, $east, $north], null);
    }

    /** @param list<list<list<array{float, float}>>> $areas */
    public static function areas(array $areas): self
    {
        $box = [\INF, \INF, -\INF, -\INF];
        foreach ($areas as $rings) {
            foreach ($rings[0] ?? [] as [$x, $y]) {
                $box = [min($box[0], $x), min($box[1], $y), max($box[2], $x), max($box[3], $y)];
            }
        }

        return new self($box, $areas);
    }

    public function of(PointBlock $points, bool $outside = false): PointBlock
    {
        $kept = [];
        foreach ($points->x as $i => $x) {
            if ($this->holds($x, $points->y[$i]) !== $outside) {
                $kept[] = $i;
            }
        }

        return \count($kept) === $points->count() ? $points : $points->only($kept);
    }

    public function holds(float $x, float $y): bool
    {
        if ($x < $this->box[0] || $x > $this->box[2] || $y < $this->box[1] || $y > $this->box[3]) {
            return false;
        }
        if (null === $this->areas) {
            return true;
        }
        foreach ($this->areas as $rings) {
            $within = false;
            foreach ($rings as $ring) {
                [$is, $isOn] = self::within($ring, $x, $y);
                if ($isOn) {
                    return true;
                }
                $within = $is ? !$within : $within;
            }
            if ($within) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param list<array{float, float}> $ring
     *
     * @return array{bool, bool} inside, and on the edge
     */
    private static function within(array $ring, float $x, float $y): array
    {
        $is = false;
        for ($i = 0, $n = \count($ring), $j = $n - 1; $i < $n; $j = $i++) {
            [$ax, $ay] = $ring[$i];
            [$bx, $by] = $ring[$j];
            $turn = ($bx - $ax) * ($y - $ay) - ($by - $ay) * ($x - $ax);
            if (0.0 === $turn && $x >= min($ax, $bx) && $x <= max($ax, $bx) && $y >= min($ay, $by) && $y <= max($ay, $by)) {
                return [true, true];
            }
            if ($ay > $y !== $by > $y && $x < ($bx - $ax) * ($y - $ay) / ($by - $ay) + $ax) {
                $is = !$is;
            }
        }

        return [$is, false];
    }
}
