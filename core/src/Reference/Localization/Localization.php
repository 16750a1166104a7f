<?php

declare(strict_types=1);

namespace Mensura\Reference\Localization;

/**
 * Local site to grid: E = E0 + s (cos r (x - x0) + sin r (y - y0)), N = N0 + s (cos r (y - y0) - sin r (x - x0)), with
 * (x0, y0) the centre of the pairs on the local side, and H = h + a + b (x - x0) + c (y - y0). Rotation r clockwise
 * from local to grid, shifts E0 - x0 and N0 - y0 at the centre.
 */
final readonly class Localization
{
    /** @param array{float, float, float} $plane metres; metres per metre east and north */
    public function __construct(
        public float $centreE,
        public float $centreN,
        public float $shiftE,
        public float $shiftN,
        public float $rotationDegrees,
        public float $scale,
        public string $vertical,
        public array $plane = [0.0, 0.0, 0.0],
    ) {
    }

    /** @return array{float, float} grid of local */
    public function toGrid(float $e, float $n): array
    {
        $r = deg2rad($this->rotationDegrees);
        $x = $this->scale * ($e - $this->centreE);
        $y = $this->scale * ($n - $this->centreN);
        $c = cos($r);
        $s = sin($r);

        return [$this->centreE + $this->shiftE + $c * $x + $s * $y, $this->centreN + $this->shiftN - $s * $x + $c * $y];
    }

    /** @return array{float, float} local of grid */
    public function toLocal(float $e, float $n): array
    {
        $r = deg2rad($this->rotationDegrees);
        $x = ($e - $this->centreE - $this->shiftE) / $this->scale;
        $y = ($n - $this->centreN - $this->shiftN) / $this->scale;
        $c = cos($r);
        $s = sin($r);

        return [$this->centreE + $c * $x - $s * $y, $this->centreN + $s * $x + $c * $y];
    }

    /** Height on the grid side of a local height at a local position; unchanged without a vertical part. */
    public function heightToGrid(float $localE, float $localN, float $h): float
    {
        return $h + $this->plane[0] + $this->plane[1] * ($localE - $this->centreE) + $this->plane[2] * ($localN - $this->centreN);
    }
}
