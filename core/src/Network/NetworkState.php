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
