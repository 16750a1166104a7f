<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/**
 * Geocentric similarity transformation with 3, 7, 10 (pivot) or 14 (rates) parameters, in the linearised form of
 * EPSG Guidance Note 7-2, section 4.3.3 (methods 1031 to 1033, 1053, 1056, 9603, 9606, 9607, 9636 and 1061 to 1063).
 * Held as position-vector rotations; the coordinate-frame convention is the same with the signs turned. The reverse
 * solves the same three equations, so it is exact whatever the size of the rotations.
 */
final readonly class Helmert
{
    /**
     * @param array{float, float, float} $translation metres
     * @param array{float, float, float} $rotation    radians, position vector
     * @param float                      $scale       difference from 1
     * @param array{float, float, float} $pivot       metres; zero unless Molodensky-Badekas
     * @param ?array{translation: array{float, float, float}, rotation: array{float, float, float}, scale: float} $rates per year
     * @param ?float                     $epoch       decimal year the parameters hold at
     */
    public function __construct(
        public array $translation,
        public array $rotation = [0.0, 0.0, 0.0],
        public float $scale = 0.0,
        public array $pivot = [0.0, 0.0, 0.0],
        public ?array $rates = null,
        public ?float $epoch = null,
    ) {
    }

    public static function positionVector(
        float $tx,
        float $ty,
        float $tz,
        float $rx = 0.0,
        float $ry = 0.0,
        float $rz = 0.0,
        float $scale = 0.0,
    ): self {
        return new self([$tx, $ty, $tz], [$rx, $ry, $rz], $scale);
    }

    public static function coordinateFrame(float $tx, float $ty, float $tz, float $rx, float $ry, float $rz, float $scale): self
    {
        return new self([$tx, $ty, $tz], [-$rx, -$ry, -$rz], $scale);
    }

    /** The parameters as they hold at an epoch (decimal year). */
    public function at(float $year): self
    {
        if (null === $this->rates || null === $this->epoch) {
            return $this;
        }
        $dt = $year - $this->epoch;
        $r = $this->rates;

        return new self(
            [
                $this->translation[0] + $dt * $r['translation'][0],
                $this->translation[1] + $dt * $r['translation'][1],
                $this->translation[2] + $dt * $r['translation'][2],
            ],
            [
                $this->rotation[0] + $dt * $r['rotation'][0], $this->rotation[1] + $dt * $r['rotation'][1],
                $this->rotation[2] + $dt * $r['rotation'][2],
            ],
            $this->scale + $dt * $r['scale'],
            $this->pivot,
        );
    }

    public function isNull(): bool
    {
        return [0.0, 0.0, 0.0] === $this->translation
            && [0.0, 0.0, 0.0] === $this->rotation
            && 0.0 === $this->scale
            && null === $this->rates;
    }

    /**
     * The linear map X' = M X + d, metres.
     *
     * @return array{0: list<float>, 1: array{float, float, float}} nine values by rows; d
     */
    public function forward(): array
    {
        [$rx, $ry, $rz] = $this->rotation;
        $k = 1.0 + $this->scale;
        $m = [$k, -$k * $rz, $k * $ry, $k * $rz, $k, -$k * $rx, -$k * $ry, $k * $rx, $k];

        return [$m, $this->offset($m)];
    }

    /**
     * The exact inverse of the forward map.
     *
     * @return array{0: list<float>, 1: array{float, float, float}}
     */
    public function backward(): array
    {
        [$m, $d] = $this->forward();
        [$a, $b, $c, $e, $f, $g, $h, $i, $j] = $m;
        $det = $a * ($f * $j - $g * $i) - $b * ($e * $j - $g * $h) + $c * ($e * $i - $f * $h);
        $inverse = [
            ($f * $j - $g * $i) / $det, ($c * $i - $b * $j) / $det, ($b * $g - $c * $f) / $det,
            ($g * $h - $e * $j) / $det, ($a * $j - $c * $h) / $det, ($c * $e - $a * $g) / $det,
            ($e * $i - $f * $h) / $det, ($b * $h - $a * $i) / $det, ($a * $f - $b * $e) / $det,
        ];

        return [$inverse, [
            -($inverse[0] * $d[0] + $inverse[1] * $d[1] + $inverse[2] * $d[2]),
            -($inverse[3] * $d[0] + $inverse[4] * $d[1] + $inverse[5] * $d[2]),
            -($inverse[6] * $d[0] + $inverse[7] * $d[1] + $inverse[8] * $d[2]),
        ]];
    }

    /**
     * @param list<float> $m
     *
     * @return array{float, float, float} T + P - M P
     */
    private function offset(array $m): array
    {
        [$px, $py, $pz] = $this->pivot;
        [$tx, $ty, $tz] = $this->translation;

        return [
            $tx + $px - ($m[0] * $px + $m[1] * $py + $m[2] * $pz),
            $ty + $py - ($m[3] * $px + $m[4] * $py + $m[5] * $pz),
            $tz + $pz - ($m[6] * $px + $m[7] * $py + $m[8] * $pz),
        ];
    }
}
