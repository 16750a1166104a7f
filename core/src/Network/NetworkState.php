<?php

declare(strict_types=1);

namespace Mensura\Network;

/**
 * Station coordinates during an adjustment and the geometry that follows from them, as flat arrays.
 *
 * $e, $n, $h per station in the frame (metres); $position (3 per station, Cartesian), $axes and $jacobian
 * (9 per station) and $curvature (3 per station) as in {@see Frame::geometry()}. $orientation per set, radians.
 */
final class NetworkState
{
    /** @var list<float> */
    public array $position = [];

    /** @var list<float> */
    public array $axes = [];

    /** @var list<float> */
    public array $jacobian = [];

    /** @var list<float> */
    public array $curvature = [];

    /** @var list<?float> */
    public array $lat = [];

    /** @var list<?float> */
    public array $lon = [];

    /** @var list<float> */
    public array $orientation = [];

    /**
     * @param list<float> $e
     * @param list<float> $n
     * @param list<float> $h
     */
    public function __construct(
        private readonly Frame $frame,
        public array $e,
        public array $n,
        public array $h,
    ) {
        $this->refresh();
    }

    /**
     * @param list<array{int, int}> $owner of each unknown: station and component, or set and 3
     * @param list<float>           $shift of each unknown
     *
     * @return float the largest shift of a coordinate, metres; beyond any sense the geometry stays as it was
     */
    public function move(array $owner, array $shift): float
    {
        $largest = 0.0;
        foreach ($owner as $k => [$s, $c]) {
            $d = $shift[$k];
            if (!is_finite($d)) {
                return \INF;
            }
            if (3 === $c) {
                $this->orientation[$s] += $d;
                continue;
            }
            $largest = max($largest, abs($d));
            if (0 === $c) {
                $this->e[$s] += $d;
            } elseif (1 === $c) {
                $this->n[$s] += $d;
            } else {
                $this->h[$s] += $d;
            }
        }
        if ($largest < 1e7) {
            $this->refresh();
        }

        return $largest;
    }

    public function refresh(): void
    {
        $position = $axes = $jacobian = $curvature = [];
        foreach ($this->e as $s => $e) {
            $g = $this->frame->geometry($e, $this->n[$s], $this->h[$s]);
            foreach ($g['position'] as $value) {
                $position[] = $value;
            }
            foreach ($g['axes'] as $value) {
                $axes[] = $value;
            }
            foreach ($g['jacobian'] as $value) {
                $jacobian[] = $value;
            }
            foreach ($g['curvature'] as $value) {
                $curvature[] = $value;
            }
            $this->lat[$s] = $g['lat'];
            $this->lon[$s] = $g['lon'];
        }
        $this->position = $position;
        $this->axes = $axes;
        $this->jacobian = $jacobian;
        $this->curvature = $curvature;
    }
}
